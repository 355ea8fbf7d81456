module Core
  module Invitation
    # That an offered time is not taken (RFC 5546 3.2.8).
    class DeclineCounter < Value.of(:uid, :sequence, :recurrence, :zone, :organizer, :address, :now)
      # @return [String] the iCalendar object
      def to_ical
        ICalendar::Writer
          .new
          .component("VCALENDAR") do |writer|
            writer.raw("VERSION", "2.0").raw("PRODID", Request::PRODID).raw("METHOD", "DECLINECOUNTER")
            ICalendar::ZoneWriter.write(
              writer, zone, zone.instant(recurrence), zone.instant(recurrence) + WallTime::DAY_S
            )
            writer.component("VEVENT") do
              writer
                .raw("UID", uid)
                .raw("SEQUENCE", sequence)
                .instant("DTSTAMP", now)
                .walls("RECURRENCE-ID", [recurrence], zone)
              writer.user("ORGANIZER", organizer.address, cn: organizer.name).user("ATTENDEE", address)
            end
          end
          .to_s
      end
    end
  end
end
