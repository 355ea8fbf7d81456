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
        method = calendar["METHOD"]&.value.to_s.strip.downcase
        unless METHODS.include?(method)
          raise Invalid.new(
            "This file neither invites nor answers: it is a calendar without a METHOD (RFC 5546).", code: "unreadable"
          )
        end

        components = calendar.inside("VEVENT")
        if components.size > MOST_EVENTS
          raise Invalid.new("This message holds more than #{MOST_EVENTS} events.", code: "unreadable")
        end

        events = components.map { |component| ICalendar::Event.read(component, times, bare: BARE.include?(method)) }
        if came_at
          events = events.map do |event|
            (event.stamp.to_i > came_at.to_i) ? event.with(stamp: came_at.to_i) : event
          end
        end
        free_busy = calendar.inside("VFREEBUSY").first
        uid = events.first&.uid || free_busy&.text("UID").to_s
        if uid.empty? || events.any? { |event| event.uid != uid }
          raise Invalid.new("This message speaks of no meeting.", code: "unreadable")
        end

        new(
          method: method, uid: uid, events: events,
          busy: (method == "reply" && free_busy) ? busy_of(free_busy, bytes, zone) : {}
        )
      end

      def self.busy_of(component, bytes, zone)
        spans =
          Core::FreeBusy::Calendar
            .new(bytes, zone: zone)
            .spans(Time.at(0), Time.at(1 << 40))
            .map { |span| [span.starts_s, span.ends_s] }
        {ICalendar::Event.address(component["ATTENDEE"]&.value) => spans}
      end
      private_class_method :busy_of
    end
  end
end
