module Core
  module Invitation
    # Somebody's meetings as a calendar to subscribe to: each meeting an event of its own, with what it is now.
    class Feed < Value.of(:name, :meetings)
      Meeting = Value.of(
        :uid, :title, :location, :url, :starts_at, :ends_at, :called_off, :tentative, :declined, :stamp, :zone, :minutes
      )

      # @return [String] the iCalendar object
      def to_ical
        ICalendar::Writer
          .new
          .component("VCALENDAR") do |writer|
            writer
              .raw("VERSION", "2.0")
              .raw("PRODID", Request::PRODID)
              .raw("METHOD", "PUBLISH")
              .text("NAME", name)
              .text("X-WR-CALNAME", name)
              .raw("REFRESH-INTERVAL", "PT1H", value: "DURATION")
            meetings
              .group_by(&:zone)
              .each do |zone, some|
                ICalendar::ZoneWriter.write(writer, zone, some.map(&:starts_at).min, some.map(&:ends_at).max)
              end
            meetings.each { |meeting| writer.component("VEVENT") { event(writer, meeting) } }
          end
          .to_s
      end

      private

      def event(writer, meeting)
        writer.raw("ATTACH", meeting.minutes, fmttype: "application/pdf") if meeting.minutes
        writer.raw("UID", meeting.uid).instant("DTSTAMP", meeting.stamp)
        writer.walls("DTSTART", [meeting.zone.wall(meeting.starts_at)], meeting.zone).walls(
          "DTEND", [meeting.zone.wall(meeting.ends_at)], meeting.zone
        )
        writer.text("SUMMARY", meeting.title).text("LOCATION", meeting.location).raw("URL", meeting.url)
        writer.raw("STATUS", if meeting.called_off
          "CANCELLED"
        else
          (meeting.tentative ? "TENTATIVE" : "CONFIRMED")
        end)
        writer.raw("TRANSP", (meeting.called_off || meeting.declined) ? "TRANSPARENT" : "OPAQUE")
      end
    end
  end
end
