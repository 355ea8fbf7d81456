module Core
  module ICalendar
    # A VEVENT as read (RFC 5545 3.6.1). `start` and `recurrence_id` are Times::Moment; `length` is nominal days and
    # exact seconds; `added` and `skipped` are Moments; `stamp` [Integer, nil] DTSTAMP in seconds since 1970 UTC;
    # `status` and PARTSTATs in small letters.
    class Event < Value.of(
      :uid, :sequence, :stamp, :start, :length, :rule, :added, :skipped, :periods, :recurrence_id, :this_and_future,
      :status, :transparent, :title, :location, :organizer, :organizer_name, :organizer_sent_by, :attendees, :comment
    )
      # `sent_by`: who may answer for them, as the message has it (RFC 5545 3.2.18); `role` in small letters (3.2.16).
      Attendee = Value.of(:address, :name, :partstat, :delegated_from, :delegated_to, :sent_by, :role)

      class << self
        # @param component [Component] VEVENT
        # @param times [Times] of its calendar
        # @param bare [Boolean] whether it may be without a start, as in replies; it then has neither start nor length
        # @raise [Invalid] code "unreadable"
        def read(component, times, bare: false)
          refuse(component.fault, component) if component.fault
          start = component["DTSTART"]
          refuse("An event has no start.", component) unless start || bare
          start &&= times.moment(start)
          recurrence = component["RECURRENCE-ID"]
          new(
            uid: component.text("UID").to_s,
            sequence: component["SEQUENCE"]&.value.to_i,
            stamp: component["DTSTAMP"] && times.moment(component["DTSTAMP"]).instant_s,
            start: start,
            length: start && length(component, times, start),
            rule: component["RRULE"]&.value,
            added: moments(component, "RDATE", times),
            skipped: moments(component, "EXDATE", times),
            periods: component.all("RDATE").map { |property| times.periods(property) }.reduce({}, :merge),
            recurrence_id: recurrence && times.moment(recurrence),
            this_and_future: recurrence&.params&.dig("RANGE", 0)&.upcase == "THISANDFUTURE",
            status: component["STATUS"]&.value.to_s.strip.downcase,
            transparent: component["TRANSP"]&.value.to_s.strip.casecmp?("TRANSPARENT"),
            title: component.text("SUMMARY"),
            location: component.text("LOCATION"),
            organizer: address(component["ORGANIZER"]&.value),
            organizer_name: component["ORGANIZER"]&.params&.dig("CN", 0),
            organizer_sent_by: address(component["ORGANIZER"]&.params&.dig("SENT-BY", 0)),
            attendees: component.all("ATTENDEE").map { |property| attendee(property) },
            comment: component.text("COMMENT")
          )
        end

        # @return [String, nil] the mail address of a calendar user in small letters
        def address(value) = value && value.strip.sub(/\Amailto:/i, "").downcase

        private

        # Without a PARTSTAT one is yet to answer (RFC 5545 3.2.12).
        def attendee(property)
          params = property.params.transform_values(&:first)
          Attendee.new(
            address: address(property.value),
            name: params["CN"],
            partstat: (params["PARTSTAT"] || "NEEDS-ACTION").downcase,
            delegated_from: address(params["DELEGATED-FROM"]),
            delegated_to: address(params["DELEGATED-TO"]),
            sent_by: address(params["SENT-BY"]),
            role: (params["ROLE"] || "REQ-PARTICIPANT").downcase
          )
        end

        def moments(component, name, times) = component.all(name).flat_map { |property| times.moments(property) }

        def length(component, times, start)
          if (finish = component["DTEND"])
            finish = times.moment(finish)
            if finish.instant_s < start.instant_s
              refuse("“#{component.text("SUMMARY")}” ends before it begins.", component)
            end
            start.date? ? [(finish.wall.date - start.wall.date).to_i, 0] : [0, finish.instant_s - start.instant_s]
          elsif (duration = component["DURATION"])
            times
              .duration(duration)
              .tap do |days, seconds|
                if days.negative? || seconds.negative?
                  refuse("“#{component.text("SUMMARY")}” takes less than no time.", component)
                end
              end
          else
            start.date? ? [1, 0] : [0, 0]
          end
        end

        def refuse(sentence, component)
          raise Invalid.new(sentence, code: "unreadable", line: component.line)
        end
      end

      # Days are nominal, so over a clock change they may have 23 hours. Whole days end at a midnight, also where that
      # of the first was skipped and they began an hour late.
      # @return [Integer] when an instance that begins then ends
      def ends_s(starts_s, zone = start.zone)
        days, seconds = length
        return periods[starts_s] if periods.key?(starts_s)
        return starts_s + seconds if days.zero?

        wall = zone.wall(Time.at(starts_s))
        wall = WallTime.at(wall.date) if start.date?
        zone.instant_s(wall.seconds + days * WallTime::DAY_S) + seconds
      end

      # @param budget [Budget] what following the rule may cost
      # @raise [Invalid] when the rule breaks the standard or takes too long to follow
      def expander(budget: Budget.new)
        form = {date: :date, utc: :utc, floating: :floating}.fetch(start.form, :zoned)
        Recurrence::Expander.new(
          rule: rule && Recurrence::Rule.parse(rule, form: form), start: start.wall, zone: start.zone, budget: budget,
          added: added.map { |moment| Time.at(moment.instant_s) },
          skipped: skipped.map { |moment| Time.at(moment.instant_s) }
        )
      end

      # Whether it has one date, which says all there is. Most events are such, and need no expanding.
      def single? = rule.nil? && recurrence_id.nil? && added.empty? && skipped.empty?

      # What a careful reader remarks: an end in UTC beside times of no zone (RFC 5545 3.3.10). @return [String, nil]
      def remark
        return unless rule && start&.form == :floating && rule.match?(/UNTIL=\d{8}T\d{6}Z/i)

        "“#{title}” is in no time zone, but its end is in UTC; that end was read as it stands."
      end
    end
  end
end
