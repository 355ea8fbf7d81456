module Core
  module Asking
    # Open hours as a calendar object: VAVAILABILITY for when each host may be booked (RFC 7953 3.1), and VFREEBUSY for
    # when they are taken (RFC 5545 3.6.4). Never with what.
    class Published < Value.of(:uid, :title, :from, :to, :stamp, :hosts)
      # `week` as FreeBusy::WorkingHours reads it, in `zone`; `busy` Spans.
      Host = Value.of(:name, :address, :zone, :week, :busy)
      DAYS = {"mo" => "MO", "tu" => "TU", "we" => "WE", "th" => "TH", "fr" => "FR", "sa" => "SA", "su" => "SU"}.freeze

      # @return [String] the iCalendar object
      def to_ical
        ICalendar::Writer.new.component("VCALENDAR") { |writer|
          writer.raw("VERSION", "2.0").raw("PRODID", Invitation::Request::PRODID).raw("METHOD", "PUBLISH")
          hosts.map(&:zone).uniq(&:name).each { |zone| ICalendar::ZoneWriter.write(writer, zone, from, to) }
          hosts.each_with_index do |host, i|
            availability(writer, host, i)
            busy(writer, host, i)
          end
        }.to_s
      end

      private

      # Outside of it, a host is not to be booked.
      def availability(writer, host, index)
        writer.component("VAVAILABILITY") do
          writer.raw("UID", "#{index}-#{uid}").instant("DTSTAMP", stamp)
          writer.instant("DTSTART", from).instant("DTEND", to)
          writer.user("ORGANIZER", host.address, cn: host.name).text("SUMMARY", title)
          writer.raw("BUSYTYPE", "BUSY-UNAVAILABLE")
          ranges(host).each_with_index { |(days, start, finish), i|
            available(writer, host, days, start, finish, "#{index}-#{i}")
          }
        end
      end

      # Days with the same hours stand together.
      # @return [Array<Array(Array<String>, String, String)>] days, from and to
      def ranges(host)
        pairs = DAYS.flat_map { |day, code|
          (host.week[day] || host.week[day.to_sym] || []).map { |range|
            [range, code]
          }
        }
        pairs.group_by(&:first).map { |(start, finish), rows| [rows.map(&:last), start, finish] }
      end

      def available(writer, host, days, start, finish, number)
        first = first_day(host, days)
        minutes = [start, finish].map { |text| text.split(":").map(&:to_i).then { |hour, min| hour * 60 + min } }
        minutes[1] += 1_440 if minutes[1] <= minutes[0]
        writer.component("AVAILABLE") do
          writer.raw("UID", "#{number}-#{uid}").instant("DTSTAMP", stamp)
          writer.walls("DTSTART", [WallTime.at(first, minutes[0] * 60)], host.zone)
          writer.walls("DTEND", [WallTime.at(first, minutes[1] * 60)], host.zone)
          writer.raw("RRULE", "FREQ=WEEKLY;BYDAY=#{days.join(",")}")
        end
      end

      def first_day(host, days)
        today = host.zone.wall(from).date
        (today..today + 6).find { |date| days.include?(DAYS.values[date.cwday - 1]) }
      end

      def busy(writer, host, index)
        writer.component("VFREEBUSY") do
          writer.raw("UID", "busy-#{index}-#{uid}").instant("DTSTAMP", stamp).instant("DTSTART", from)
          writer.instant("DTEND", to).user("ORGANIZER", host.address, cn: host.name)
          Spans.clip(host.busy, Spans.minute(from), Spans.minute(to)).each_slice(2) do |starts, ends|
            period = [starts, ends].map { |minute| ICalendar::Writer.utc(Time.at(minute * 60)) }.join("/")
            writer.raw("FREEBUSY", period, fbtype: "BUSY")
          end
        end
      end
    end
  end
end
