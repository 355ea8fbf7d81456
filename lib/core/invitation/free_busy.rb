module Core
  module Invitation
    # Published busy time as VFREEBUSY (RFC 5545 3.6.4, method PUBLISH of RFC 5546 3.3.1): when, never with what.
    class FreeBusy < Value.of(:uid, :name, :address, :from, :to, :stamp, :busy, :tentative)
      # @return [String] the iCalendar object
      def to_ical
        ICalendar::Writer.new.component("VCALENDAR") { |writer|
          writer.raw("VERSION", "2.0").raw("PRODID", Request::PRODID).raw("METHOD", "PUBLISH")
          writer.component("VFREEBUSY") do
            writer.raw("UID", uid).instant("DTSTAMP", stamp).instant("DTSTART", from).instant("DTEND", to)
            writer.user("ORGANIZER", address, cn: name)
            periods(writer, busy, "BUSY")
            periods(writer, tentative, "BUSY-TENTATIVE")
          end
        }.to_s
      end

      private

      # A period a line: widespread readers take one only.
      def periods(writer, spans, kind)
        Spans
          .clip(spans, Spans.minute(from), Spans.minute(to))
          .each_slice(2) do |starts, ends|
            writer.raw(
              "FREEBUSY", [starts, ends].map { |minute| ICalendar::Writer.utc(Time.at(minute * 60)) }.join("/"),
              fbtype: kind
            )
          end
      end
    end
  end
end
