module Core
  module Invitation
    # An invited person's answer to another's meeting: a REPLY (RFC 5546 3.2.3) or, with another time, a COUNTER
    # (3.2.7); sent on their behalf (SENT-BY, RFC 5545 3.2.18).
    # `recurrence` the original start of the instance answered to, as ICalendar::Times::Moment, or nil for the whole;
    # `offered` start and end of the other time, or nil.
    class Answer < Value.of(
      :uid, :sequence, :recurrence, :offered, :answer, :comment, :title, :name, :address, :sent_by, :organizer, :now
    )
      # @return [String] the iCalendar object
      def to_ical
        ICalendar::Writer.new.component("VCALENDAR") { |writer|
          writer.raw("VERSION", "2.0").raw("PRODID", Request::PRODID).raw("METHOD", offered ? "COUNTER" : "REPLY")
          writer.component("VEVENT") { event(writer) }
        }.to_s
      end

      private

      def event(writer)
        writer.raw("UID", uid.gsub(/[[:cntrl:]]/, "")).raw("SEQUENCE", sequence).instant("DTSTAMP", now)
        if recurrence
          if recurrence.date?
            writer.raw("RECURRENCE-ID", recurrence.wall.strftime("%Y%m%d"), value: "DATE")
          else
            writer.instant("RECURRENCE-ID", Time.at(recurrence.instant_s))
          end
        end
        writer.instant("DTSTART", offered[0]).instant("DTEND", offered[1]) if offered
        writer.text("SUMMARY", title).text("COMMENT", comment).user("ORGANIZER", organizer)
        writer.user(
          "ATTENDEE", address, cn: name, partstat: Request::ANSWERS.fetch(answer), sent_by: "mailto:#{sent_by}"
        )
      end
    end
  end
end
