module Core
  module FreeBusy
    # One calendar file as busy time (rules.md 3; the mapping of STATUS and TRANSP is that of RFC 4791 7.10).
    class Calendar
      # `starts_s`, `ends_s` seconds since 1970 UTC; `kind` :busy, :tentative or :unavailable; `title` for the owner's
      # eyes only.
      Span = Value.of(:starts_s, :ends_s, :kind, :title)

      KINDS = {"BUSY" => :busy, "BUSY-TENTATIVE" => :tentative, "BUSY-UNAVAILABLE" => :unavailable}.freeze
      MOST_EVENTS = 30_000
      MOST_WARNINGS = 100
      # So many further dates and changes are kept of an event whose rule cannot be followed.
      MOST_ADDED = 100

      attr_reader :warnings

      # @param bytes [String] the file
      # @param zone [Zone] the owner's: floating times and whole days are read in it
      # @param addresses [Array<String>] the owner's mail addresses: what they declined there does not block
      # @param ours [Regexp, nil] UIDs of our own meetings, which count without this calendar
      # @raise [Invalid] code "unreadable"
      def initialize(bytes, zone:, addresses: [], ours: nil)
        @budget = Budget.new
        read = ICalendar::Reader.read(bytes, budget: @budget)
        @warnings = read.warnings
        @addresses = addresses.map(&:downcase)
        @periods = []
        @broken = []
        events = read.components.flat_map { |calendar| take(calendar, zone) }
        raise @broken.first if events.empty? && @periods.empty? && @broken.any?

        events = events.reject { |event| event.uid.match?(ours) } if ours
        if events.size > MOST_EVENTS
          raise Invalid.new("This calendar has more than #{MOST_EVENTS} events.", code: "unreadable")
        end

        # Without a UID each stands for itself.
        @groups =
          events
            .each_with_index
            .group_by { |event, i| event.uid.empty? ? i : event.uid }
            .values
            .map { |group| group.map(&:first) }
      end

      # How many events there are to expand.
      def size = @groups.size

      # @yield [Integer] now and then, how many events are done; may raise to stop
      # @return [Array<Span>] that touch [from, to), sorted
      def spans(from, to)
        found = @periods.select { |span| span.starts_s < to.to_i && span.ends_s > from.to_i }
        @groups.each_with_index do |events, i|
          yield i if block_given? && (i % 100).zero?
          found.concat(busy(events, from, to))
        end
        found.uniq.sort_by { |span| [span.starts_s, span.ends_s, span.kind, span.title.to_s] }
      end

      private

      def take(calendar, zone)
        times = ICalendar::Times.new(calendar, zone, budget: @budget)
        events = calendar.inside("VEVENT").filter_map { |component| event(component, times) }
        calendar.inside("VFREEBUSY").each { |component| @periods.concat(periods(component, times)) }
        times.unlisted.uniq.each do |id|
          @warnings << "The time zone #{id} is not described in the file; the known one of that name was taken."
        end
        events
      end

      # One that cannot be read leaves the others standing, and is named. Where none can, the file is refused.
      def event(component, times)
        ICalendar::Event.read(component, times).tap { |event| event.remark&.then { |words| warn(words) } }
      rescue Invalid => error
        raise if error.code == "too-much-work"

        @broken << error
        title = Words.shorten(component.text("SUMMARY") || "An event without a title", 80)
        warn("“#{title}” (line #{component.line}) was left out: #{error.message}")
        nil
      end

      def periods(component, times)
        component.all("FREEBUSY").flat_map do |property|
          kind = property.params["FBTYPE"]&.first&.upcase || "BUSY"
          next [] if kind == "FREE"

          property.value.split(",").map { |period| period_span(property, period, KINDS.fetch(kind, :busy), times) }
        end
      end

      def period_span(property, period, kind, times)
        from, to = period.split("/", 2)
        starts_s, ends_s = times.period(property, from.to_s, to.to_s)
        Span.new(starts_s: starts_s, ends_s: ends_s, kind: kind, title: nil)
      end

      def busy(events, from, to)
        instances(events, from, to).filter_map do |instance|
          kind = kind_of(instance.event) or next
          if instance.ends_s > instance.starts_s
            Span.new(starts_s: instance.starts_s, ends_s: instance.ends_s, kind: kind, title: instance.event.title)
          end
        end
      end

      # A rule that cannot be followed leaves its first date and the dates named beside it.
      def instances(events, from, to)
        return touching([ICalendar::Instances.first_of(events.first)], from, to) if events.one? && events.first.single?
        return first_dates(events, from, to) if spent?

        ICalendar::Instances.new(events, budget: @budget).within(from, to)
      rescue Invalid => error
        unless spent?
          warn(
            "“#{events.first.title}” repeats by a rule that cannot be followed, so only its first date counts: " \
              "#{error.message}"
          )
        end
        first_dates(events, from, to)
      end

      def touching(instances, from, to) =
        instances.select { |instance| instance.starts_s < to.to_i && instance.ends_s > from.to_i }

      def spent?
        @budget.spent?.tap do |spent|
          if spent
            warn(
              "This calendar holds more repeated events than can be followed. Of some, only the first date counts."
            )
          end
        end
      end

      def first_dates(events, from, to)
        first = events.first(MOST_ADDED).reject(&:recurrence_id)
        if first.all? { |event| event.added.empty? }
          return touching(first.map { |event| ICalendar::Instances.first_of(event) }, from, to)
        end

        first = first.map { |event| event.with(rule: nil, added: event.added.first(MOST_ADDED)) }
        ICalendar::Instances.new(first, budget: Budget.new(10_000)).within(from, to)
      end

      def warn(sentence)
        @warnings << sentence unless @warnings.size >= MOST_WARNINGS || @warnings.include?(sentence)
      end

      def kind_of(event)
        return if event.transparent || event.status == "cancelled"

        answers = event.attendees.select { |attendee| @addresses.include?(attendee.address) }.map(&:partstat)
        return if answers.include?("declined")

        (event.status == "tentative" || answers.include?("tentative")) ? :tentative : :busy
      end
    end
  end
end
