module Core
  module Invitation
    # A single meeting of a series for somebody who is asked to that one alone: a REQUEST or CANCEL whose only VEVENT
    # carries the RECURRENCE-ID (RFC 5546 3.2.2, 3.2.5), and who stands in for whom (DELEGATED-FROM, RFC 5545 3.2.4).
    class OneMeeting < Value.of(
      :method, :uid, :sequence, :content, :from, :to, :length_min, :description, :organizer, :name, :address,
      :instead_of, :url, :alarm_min, :now
    )
      # @return [String] the iCalendar object. `from` the original start and `to` the present one, on the wall
      def to_ical
        zone = content.zone
        ICalendar::Writer
          .new
          .component("VCALENDAR") do |writer|
            writer
              .raw("VERSION", "2.0")
              .raw("PRODID", Request::PRODID)
              .raw("CALSCALE", "GREGORIAN")
              .raw("METHOD", method.to_s.upcase)
            ICalendar::ZoneWriter.write(
              writer, zone, zone.instant([from, to].min), zone.instant([from, to].max) + WallTime::DAY_S
            )
            writer.component("VEVENT") { event(writer, zone) }
          end
          .to_s
      end

      private

      def event(writer, zone)
        writer.raw("UID", uid).raw("SEQUENCE", sequence).instant("DTSTAMP", now).walls("RECURRENCE-ID", [from], zone)
        writer.walls("DTSTART", [to], zone).raw("DURATION", "PT#{length_min}M")
        writer
          .text("SUMMARY", content.title)
          .text("DESCRIPTION", description)
          .text("LOCATION", content.where)
          .raw("URL", url)
        content.online&.write(writer)
        writer
          .raw("STATUS", (method == :cancel) ? "CANCELLED" : "CONFIRMED")
          .raw("TRANSP", "OPAQUE")
          .user("ORGANIZER", organizer.address, cn: organizer.name)
        writer.user(
          "ATTENDEE", address, cn: name, cutype: "INDIVIDUAL", role: "REQ-PARTICIPANT", partstat: "NEEDS-ACTION",
          rsvp: "TRUE", **(instead_of ? {delegated_from: "mailto:#{instead_of}"} : {})
        )
        unless method == :cancel
          writer.component("VALARM") do
            writer.raw("ACTION", "DISPLAY").text("DESCRIPTION", content.title).raw("TRIGGER", "-PT#{alarm_min}M")
          end
        end
      end
    end
  end
end
