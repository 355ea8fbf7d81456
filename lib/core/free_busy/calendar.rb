module Core
  module FreeBusy
    # One calendar file as busy time (rules.md 3; the mapping of STATUS and TRANSP is that of RFC 4791 7.10).
    class Calendar
      # `starts_s`, `ends_s` seconds since 1970 UTC; `kind` :busy, :tentative or :unavailable; `title` for the owner's eyes only.
      Span = Value.of(:starts_s, :ends_s, :kind, :title)

      KINDS = {"BUSY" => :busy, "BUSY-TENTATIVE" => :tentative, "BUSY-UNAVAILABLE" => :unavailable}.freeze
      MOST_EVENTS = 50_000

      attr_reader :warnings

      # @param bytes [String] the file
      # @param zone [Zone] the owner's: floating times and whole days are read in it
      # @param addresses [Array<String>] the owner's mail addresses: what they declined there does not block
      # @param ours [Regexp, nil] UIDs of our own meetings, which count without this calendar
      # @raise [Invalid] code "unreadable"
      def initialize(bytes, zone:, addresses: [], ours: nil)
        read = ICalendar::Reader.read(bytes)
        @warnings = read.warnings
        @addresses = addresses.map(&:downcase)
        @periods = []
        events = read.components.flat_map { |calendar| take(calendar, zone) }
        events = events.reject { |event| event.uid.match?(ours) } if ours
        raise Invalid.new("This calendar has more than #{MOST_EVENTS} events.", code: "unreadable") if events.size > MOST_EVENTS

        # Without a UID each stands for itself.
        @groups = events.each_with_index.group_by { |event, i| event.uid.empty? ? i : event.uid }.values.map { |group| group.map(&:first) }
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
        times = ICalendar::Times.new(calendar, zone)
        events = calendar.inside("VEVENT").map { |component| ICalendar::Event.read(component, times) }
        calendar.inside("VFREEBUSY").each { |component| @periods.concat(periods(component, times)) }
        times.unlisted.uniq.each { |id| @warnings << "The time zone #{id} is not described in the file; the known one of that name was taken." }
        events
      end

      def periods(component, times)
        component.all("FREEBUSY").flat_map do |property|
          kind = property.params["FBTYPE"]&.first&.upcase || "BUSY"
          next [] if kind == "FREE"

          property.value.split(",").map { |period| period_span(property, period, KINDS.fetch(kind, :busy), times) }
        end
      end

      def period_span(property, period, kind, times)
        from, to = period.split("/")
        starts_s = times.moment(property, from).instant_s
        ends_s = to.to_s.match?(/\A[+-]?P/i) ? times.duration(property, to).then { |days, seconds| starts_s + days * 86_400 + seconds } : times.moment(property, to.to_s).instant_s
        Span.new(starts_s: starts_s, ends_s: ends_s, kind: kind, title: nil)
      end

      def busy(events, from, to)
        instances(events, from, to).filter_map do |instance|
          kind = kind_of(instance.event) or next
          Span.new(starts_s: instance.starts_s, ends_s: instance.ends_s, kind: kind, title: instance.event.title) if instance.ends_s > instance.starts_s
        end
      end

      # A rule that cannot be followed leaves its first date and the dates named beside it.
      def instances(events, from, to)
        ICalendar::Instances.new(events).within(from, to)
      rescue Invalid => error
        @warnings << "“#{events.first.title}” repeats by a rule that cannot be followed, so only its first date counts: #{error.message}"
        ICalendar::Instances.new(events.map { |event| event.with(rule: nil) }).within(from, to)
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
