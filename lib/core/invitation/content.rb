module Core
  module Invitation
    # What the invited are told of a series, as plain text and numbers so that it can be kept and compared. `start` and all
    # times are on the wall; `call` as Call#to_plain gives it; `off` the meetings called off as {"on", "reason"}, `moved` as {"from", "to", "length_min"}.
    class Content < Value.of(:title, :purpose, :location, :call, :keeper, :start, :time_zone, :length_min, :rule, :dates, :off, :moved)
      # @param plain [Hash{String => Object}] as `to_plain` gives it; what was told before calls were known has none
      def self.of(plain) = new(**self::NAMES.to_h { |name| [name, {"call" => nil}.merge(plain).fetch(name.to_s)] })

      def to_plain = to_h.transform_keys(&:to_s)

      # @return [Recurrence::Run, nil] nil when no meeting is left
      def run
        return unless start

        Recurrence::Run.new(start: WallTime.parse(start), zone: zone, length_min: length_min, rule: rule && Recurrence::Rule.parse(rule), dates: dates.map { |text| WallTime.parse(text) })
      end

      def zone = Zone[time_zone]

      def online = Call.of(call)

      # Where it is: the room, or, when there is none, the call (common practice).
      def where = location || online&.url || online&.dial_in

      def off_walls = off.map { |one| WallTime.parse(one["on"]) }

      # What decides whether somebody must be told; who else is asked does not.
      def matters = to_plain.except("keeper", *("call" unless call))

      # Whether one who has answered must be asked again (rules.md 6).
      def same_times?(other) = %i[start time_zone length_min rule dates moved].all? { |name| public_send(name) == other.public_send(name) }
    end
  end
end
