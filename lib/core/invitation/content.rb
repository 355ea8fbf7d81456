module Core
  module Invitation
    # What the invited are told of a series, as plain text and numbers so that it can be kept and compared. `start` and
    # all times are on the wall; `call` as Call#to_plain gives it.
    # `off`: the meetings called off as {"on", "reason"}.
    # `moved`: those that are not as the rule says, as {"from", "to", "length_min"}, with "where" and "call" where these
    # are their own.
    # `later`: where dates of an earlier rule are still to come, the rule after them as {"start", "rule", "dates",
    # "length_min"}; only for words.
    # `ended`: since when all are called off, as {"from", "reason"}.
    # `options`: what differs from the usual, as Options#unusual gives it.
    class Content < Value.of(
      :title, :purpose, :location, :call, :keeper, :start, :time_zone, :length_min, :rule, :dates, :off, :moved,
      :later, :ended, :options
    )
      # What was told before these were known has none of them.
      SINCE = {"call" => nil, "later" => nil, "ended" => nil, "options" => nil}.freeze
      # How far ahead two contents are compared date by date: those without an end as far as they are laid out.
      ENDLESS_S = Recurrence::Run::HORIZON_MONTHS * 31 * 86_400
      LATEST_S = Recurrence::Run::LATEST_YEARS * 366 * 86_400

      # One meeting: when it was to be, when it is, how long, with what of its own; `off` is why it was called off, ""
      # where nobody said, nil where it takes place.
      Single = Value.of(:original, :at, :length_min, :special, :off)

      # @param plain [Hash{String => Object}] as `to_plain` gives it
      def self.of(plain) = new(**self::NAMES.to_h { |name| [name, SINCE.merge(plain).fetch(name.to_s)] })

      def to_plain = to_h.transform_keys(&:to_s)

      # @return [Recurrence::Run, nil] nil when no meeting is left
      def run
        run_of(start, rule, dates, length_min) if start
      end

      # When it is, in words. @return [String, nil] nil when no meeting is left
      def sentence
        return run&.sentence unless later

        following = run_of(*later.values_at("start", "rule", "dates", "length_min"))
        earlier = run.between(Time.at(0), zone.instant(following.start)).map do |date|
          Recurrence::Sentence::Earlier.new(wall: date.wall, length_min: length_of(date.wall.to_s))
        end
        Recurrence::Sentence.with_earlier(following, earlier)
      end

      # Whether its sentence tells the dates to come, rather than how many were set by hand.
      def ruled? = !(later ? later["rule"] : rule).nil?

      def zone = Zone[time_zone]

      def online = Call.of(call)

      # Where it is: room and call, for programs show no more than this (common practice).
      def where
        parts = [location, online && (online.url || online.dial_in)].compact
        parts.join(", ") if parts.any?
      end

      def off_walls = off.map { |one| WallTime.parse(one["on"]) }

      # What decides whether somebody must be told; who else is asked does not.
      def matters = to_plain.except("keeper", "later", *SINCE.keys.reject { |name| to_plain[name] })

      # Whether one who has answered must be asked again (rules.md 6).
      def same_times?(other)
        %i[start time_zone length_min rule dates moved].all? { |name| public_send(name) == other.public_send(name) }
      end

      # The meetings from a moment on, as far as contents are compared, called off or not.
      # @return [Array<Single>] in order
      def meetings(from)
        return [] unless run

        moved_from, reasons = moved.to_h { |one| [one["from"], one] }, off.to_h { |one| one.values_at("on", "reason") }
        dates = run.between(from - ENDLESS_S, from + (run.endless? ? ENDLESS_S : LATEST_S))
        all = dates.map { |date| date.wall.to_s }.map { |wall| single(wall, moved_from[wall], reasons[wall]) }
        all.select { |one| zone.instant(one.at) >= from }.sort_by { |one| [one.at, one.original] }
      end

      private

      def run_of(start, rule, dates, length_min)
        Recurrence::Run.new(start: WallTime.parse(start), zone: zone, length_min: length_min,
          rule: rule && Recurrence::Rule.parse(rule), dates: dates.map { |text| WallTime.parse(text) })
      end

      def single(wall, own, off)
        Single.new(original: WallTime.parse(wall), at: WallTime.parse(own ? own["to"] : wall), off: off,
          length_min: own ? own["length_min"] : length_min, special: own&.slice("where", "call")&.compact || {})
      end

      def length_of(wall) = moved.find { |one| one["from"] == wall }&.fetch("length_min") || length_min
    end
  end
end
