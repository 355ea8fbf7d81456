module Core
  module ICalendar
    # Writes a VTIMEZONE (RFC 5545 3.6.5) that says every change of offset in a stretch of time by its date,
    # so that a reader without zone data arrives at our instants. Where there is an RDATE, widespread readers leave
    # the DTSTART beside it out and read one date a line, so each is said on a line of its own, the first too; a
    # date said twice counts once (3.8.5.2).
    module ZoneWriter
      module_function

      # @param from, to [Time] the stretch the calendar object needs
      def write(writer, zone, from, to)
        writer.component("VTIMEZONE") do
          writer.raw("TZID", zone.name)
          changes = zone.changes(from, to)
          if changes.empty?
            observance(writer, "STANDARD", [WallTime.new(0)], zone.offset_s(from), zone.offset_s(from), zone.name)
          end
          changes
            .group_by { |change| change.with(instant: nil) }
            .each do |kind, alike|
              onsets = alike.map { |change| WallTime.new(change.instant.to_i + change.offset_before_s) }
              observance(
                writer, kind.daylight ? "DAYLIGHT" : "STANDARD", onsets, kind.offset_before_s, kind.offset_after_s,
                kind.abbreviation
              )
            end
        end
      end

      def observance(writer, name, onsets, before_s, after_s, abbreviation)
        writer.component(name) do
          writer.raw("DTSTART", onsets.first.strftime("%Y%m%dT%H%M%S"))
          onsets.each { |wall| writer.raw("RDATE", wall.strftime("%Y%m%dT%H%M%S")) } if onsets.size > 1
          writer.raw("TZOFFSETFROM", offset(before_s))
          writer.raw("TZOFFSETTO", offset(after_s))
          writer.text("TZNAME", abbreviation)
        end
      end

      def offset(seconds)
        hours, rest = seconds.abs.divmod(3600)
        minutes, seconds_left = rest.divmod(60)
        format(
          "%s%02d%02d%s", seconds.negative? ? "-" : "+", hours, minutes,
          seconds_left.zero? ? "" : format("%02d", seconds_left)
        )
      end
    end
  end
end
