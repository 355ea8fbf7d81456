module Core
  module Invitation
    # An iTIP message (RFC 5546) as read. `method` in small letters; `events` of it, those of replies may be without
    # start;
    # `busy` what a free/busy reply tells: spans in seconds by address.
    class Message < Value.of(:method, :uid, :events, :busy)
      METHODS = %w[publish request reply add cancel refresh counter declinecounter].freeze
      # Those that may leave the start out.
      BARE = %w[reply cancel refresh declinecounter].freeze
      MOST_EVENTS = 400
      # A message is read again with each later one about the same meeting, so it may cost less than a whole calendar.
      UNITS = 400_000

      # @param bytes [String]
      # @param zone [Zone] of the reader, for floating times
      # @param budget [Budget] what reading may cost
      # @param came_at [Time, nil] a message that says it was written later than that counts as written then: else
      #   nothing would ever be newer
      # @raise [Invalid] code "unreadable" or "too-much-work"
      def self.read(bytes, zone: Zone["UTC"], budget: Budget.new(UNITS), came_at: nil)
        calendar = ICalendar::Reader.read(bytes, budget: budget).components.first
        times = ICalendar::Times.new(calendar, zone, budget: budget)
        method = method_of(calendar)
        events = components_of(calendar).map { |one| ICalendar::Event.read(one, times, bare: BARE.include?(method)) }
        events = events.map { |event| not_after(event, came_at) } if came_at
        free_busy = calendar.inside("VFREEBUSY").first
        busy = (method == "reply" && free_busy) ? busy_of(free_busy, bytes, zone) : {}
        new(method: method, uid: uid_of(events, free_busy), events: events, busy: busy)
      end

      def self.method_of(calendar)
        method = calendar["METHOD"]&.value.to_s.strip.downcase
        return method if METHODS.include?(method)

        said = "This file neither invites nor answers: it is a calendar without a METHOD (RFC 5546)."
        raise Invalid.new(said, code: "unreadable")
      end

      def self.components_of(calendar)
        components = calendar.inside("VEVENT")
        return components if components.size <= MOST_EVENTS

        raise Invalid.new("This message holds more than #{MOST_EVENTS} events.", code: "unreadable")
      end

      def self.uid_of(events, free_busy)
        uid = events.first&.uid || free_busy&.text("UID").to_s
        return uid unless uid.empty? || events.any? { |event| event.uid != uid }

        raise Invalid.new("This message speaks of no meeting.", code: "unreadable")
      end

      def self.not_after(event, came_at)
        (event.stamp.to_i > came_at.to_i) ? event.with(stamp: came_at.to_i) : event
      end

      def self.busy_of(component, bytes, zone)
        spans =
          Core::FreeBusy::Calendar
            .new(bytes, zone: zone)
            .spans(Time.at(0), Time.at(1 << 40))
            .map { |span| [span.starts_s, span.ends_s] }
        {ICalendar::Event.address(component["ATTENDEE"]&.value) => spans}
      end
      private_class_method :method_of, :components_of, :uid_of, :not_after, :busy_of
    end
  end
end
