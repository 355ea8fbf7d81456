module Core
  module ICalendar
    # Dates, times and durations of one calendar, read with the zones it defines (RFC 5545 3.3.4 to 3.3.6, 3.6.5).
    class Times
      # `form` :date, :utc, :zoned or :floating; `wall` [WallTime]; `zone` [Zone], for floating and dates the reader's
      # own.
      class Moment < Value.of(:form, :wall, :zone)
        def instant_s = zone.instant_s(wall.seconds)

        def date? = form == :date
      end

      FORM = /\A(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)(Z)?)?\z/i
      DURATION = /\A([+-])?P(?:(\d+)W|(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?)\z/i
      # Nothing anybody is asked to takes longer; what says so is a slip or an attack.
      LONGEST_DAYS = 3_660
      UTC = Zone["UTC"]
      # A VTIMEZONE's rules are followed this far.
      LAST_ONSET = Time.utc(2060)

      # @param calendar [Component] VCALENDAR
      # @param own_zone [Zone] in which floating times and dates are read
      # @param budget [Budget] what reading may cost
      def initialize(calendar, own_zone, budget: Budget.new)
        @own_zone = own_zone
        @budget = budget
        @defined = calendar.inside("VTIMEZONE").to_h { |component| [component["TZID"]&.value.to_s, component] }
        @zones = {}
        @unlisted = []
      end

      # Zones named by IANA's name without being defined in the file.
      attr_reader :unlisted, :budget

      # @return [Moment]
      # @raise [Invalid]
      def moment(property, value = property.value)
        @budget.spend(Budget::MOMENT)
        match = FORM.match(value.strip) or refuse("#{property.name} “#{value}” is not a date or time.", property)
        year, month, day, hour, minute, second = match.captures.first(6).map(&:to_i)
        unless Date.valid_civil?(year, month, day) && hour < 24 && minute < 60 && second < 61
          refuse("#{property.name} “#{value}” is no date there is.", property)
        end
        wall = WallTime.at(Date.new(year, month, day), hour * 3600 + minute * 60 + [second, 59].min)
        form, zone = form_and_zone(match, property)
        Moment.new(form: form, wall: wall, zone: zone)
      end

      # @return [Array<Moment>] of a property that lists several (RDATE, EXDATE); the start of each period
      def moments(property)
        @budget.spend(property.value.count(",") * Budget::MOMENT)
        property.value.split(",").map { |value| moment(property, value[/\A[^\/]*/]) }
      end

      # @return [Hash{Integer => Integer}] where each period of an RDATE that gives its end (RFC 5545 3.8.5.2, 3.3.9)
      #   begins and ends, in seconds since 1970 UTC
      def periods(property)
        return {} unless property.value.include?("/")

        property
          .value
          .split(",")
          .filter_map { |value| period(property, *value.split("/", 2)) if value.include?("/") }
          .to_h
      end

      # @return [Array(Integer, Integer)] start and end of one period, in seconds since 1970 UTC
      def period(property, from, to)
        starts_s = moment(property, from).instant_s
        return [starts_s, moment(property, to).instant_s] unless to.match?(/\A[+-]?P/i)

        days, seconds = duration(property, to)
        [starts_s, starts_s + days * WallTime::DAY_S + seconds]
      end

      # @return [Array(Integer, Integer)] nominal days and exact seconds (RFC 5545 3.3.6: days are nominal, hours exact)
      def duration(property, value = property.value)
        @budget.spend(Budget::MOMENT)
        match = DURATION.match(value.strip) or refuse("#{property.name} “#{value}” is not a length of time.", property)
        weeks, days, hours, minutes, seconds = match.captures.drop(1).map(&:to_i)
        length = [weeks * 7 + days, hours * 3600 + minutes * 60 + seconds]
        if length[0] + length[1] / WallTime::DAY_S > LONGEST_DAYS
          refuse("#{property.name} “#{Words.shorten(value, 40)}” is longer than #{LONGEST_DAYS} days.", property)
        end
        (match[1] == "-") ? length.map(&:-@) : length
      end

      private

      def form_and_zone(match, property)
        return [:date, @own_zone] unless match[4]
        return [:utc, UTC] if match[7]

        id = property.params["TZID"]&.first
        id ? [:zoned, zone(id, property)] : [:floating, @own_zone]
      end

      # The definition in the file counts, unless its name is IANA's: then the zone of that name is meant, and files
      # often spell out a few years of it only (common practice).
      def zone(id, property)
        @zones[id] ||= if Zone.known?(id)
          @unlisted << id unless @defined.key?(id)
          Zone[id]
        elsif @defined.key?(id)
          defined_zone(id, @defined[id])
        else
          refuse(
            "The time zone “#{id}” is neither described in the file nor known, so no time in it can be told.",
            property
          )
        end
      end

      def defined_zone(id, component)
        observances = component.inside("STANDARD") + component.inside("DAYLIGHT")
        onsets =
          observances
            .flat_map { |observance| onsets(observance) }
            .sort_by { |wall, before_s, *| wall.seconds - before_s }
        if onsets.empty?
          refuse("The time zone “#{id}” is described without a change or an offset.", component["TZID"])
        end

        Zone.new(id, onsets.first[1], onsets.map { |wall, before_s, after_s, name, daylight|
          Zone::Onset.new(instant_s: wall.seconds - before_s, offset_s: after_s, abbreviation: name, daylight: daylight)
        })
      end

      def onsets(observance)
        before_s, after_s = %w[TZOFFSETFROM TZOFFSETTO].map { |name| offset_s(observance, name) }
        start = observance["DTSTART"] or refuse("A time zone is described without the start of a rule.", nil)
        wall = plain(start, start.value)
        walls = [
          wall,
          *observance.all("RDATE").flat_map { |rdate| rdate.value.split(",").map { |value| plain(rdate, value) } }
        ]
        walls += rule_walls(observance["RRULE"], wall, before_s) if observance["RRULE"]
        walls.uniq.map do |onset|
          [onset, before_s, after_s, observance.text("TZNAME").to_s, observance.name == "DAYLIGHT"]
        end
      end

      def rule_walls(property, wall, before_s)
        rule = Recurrence::Rule.parse(
          property.value, form: property.value.match?(/UNTIL=\d{8}T\d{6}Z/i) ? :zoned : :floating
        )
        # UNTIL is an instant (RFC 5545 3.3.10): with the offset before the change it stands on the wall.
        rule = rule.with(until_on: rule.until_on + before_s) if rule.until_on.is_a?(Time)
        Recurrence::Expander
          .new(rule: rule, start: wall, zone: UTC, budget: @budget)
          .between(Time.at(0), LAST_ONSET)
          .map do |instant|
            @budget.spend(Budget::MOMENT)
            UTC.wall(instant)
          end
      end

      def plain(property, value) = moment(
        Component::Property.new(name: property.name, params: {}, value: value.delete("Zz"), line: property.line)
      ).wall

      def offset_s(observance, name)
        property = observance[name]
        match = /\A([+-])(\d\d)(\d\d)(\d\d)?\z/.match(property&.value.to_s.strip) or
          refuse("A time zone is described without #{name}.", property)
        seconds = match[2].to_i * 3600 + match[3].to_i * 60 + match[4].to_i
        (match[1] == "-") ? -seconds : seconds
      end

      def refuse(sentence, property)
        raise Invalid.new(sentence, code: "unreadable", line: property&.line)
      end
    end
  end
end
