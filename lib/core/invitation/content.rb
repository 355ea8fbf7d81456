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

      # When it is, in words: a single meeting as it is now, of a run what is to come and takes place.
      # @param from [Time, nil] what lies before is not counted
      # @return [String, nil] nil when no meeting is left
      def sentence(from: nil) = (sentence_of(meetings(from || beginning), from, off_walls) if run)

      # The same as it was planned, whatever has become of single dates.
      def plan(from: nil)
        lengths = moved.map { |one| one.slice("from", "length_min").merge("to" => one["from"]) }
        with(off: [], moved: lengths).sentence(from: from)
      end

      # Dates that are not as the sentence says. @return [Array<String>]
      def exceptions(from:) = run ? Exceptions.new(self, from).to_a : []

      # When the one begins that is on or next, and takes place. @return [Time, nil]
      def next_start(from)
        coming = meetings(from - Recurrence::Run::LONGEST_MIN * 60).reject(&:off)
        coming.find { |one| zone.instant(one.at) + one.length_min * 60 > from }&.then { |one| zone.instant(one.at) }
      end

      # Of a run, the next date alone. @return [Content] itself where there is none
      def next_alone(from)
        one = meetings(from).find { |meeting| meeting.off.nil? } or return self

        with(start: one.at.to_s, length_min: one.length_min, rule: nil, dates: [], off: [], moved: [], later: nil,
          ended: nil, location: one.special.fetch("where", location), call: one.special.fetch("call", call))
      end

      # Whether it is one meeting and no run.
      def single? = !start.nil? && rule.nil? && dates.empty?

      # Whether its sentence tells the dates to come, rather than how many were set by hand.
      def ruled? = !(later ? later["rule"] : rule).nil?

      def zone = Zone[time_zone]

      def online = Call.of(call)

      # Where it is: the place, or without one the way into the call, for some programs show no more than this (common
      # practice).
      def where = location || (online && (online.url || online.dial_in))

      def off_walls = off.map { |one| WallTime.parse(one["on"]) }

      # Those of the run alone: of dates of an earlier rule an entry need not say that they are left out.
      def off_of_run
        given = run.between(zone.instant(off_walls.min), zone.instant(off_walls.max) + 1).map(&:wall) if off.any?
        off_walls & given.to_a
      end

      # What decides whether somebody must be told; who else is asked does not.
      def matters = to_plain.except("keeper", "later", *SINCE.keys.reject { |name| to_plain[name] })

      # Whether one who has answered must be asked again (rules.md 6).
      def same_times?(other)
        %i[start time_zone length_min rule dates moved].all? { |name| public_send(name) == other.public_send(name) }
      end

      # The meetings from a moment on, as far as contents are compared, called off or not; those called off before the
      # rule changed, too.
      # @return [Array<Single>] in order
      def meetings(from)
        moved_from, reasons = moved.to_h { |one| [one["from"], one] }, off.to_h { |one| one.values_at("on", "reason") }
        all = (walls_around(from) | reasons.keys).map { |wall| single(wall, moved_from[wall], reasons[wall]) }
        all.select { |one| zone.instant(one.at) >= from }.sort_by { |one| [one.at, one.original] }
      end

      # The meeting, where it is a single one. @return [Single]
      def only = meetings(beginning).first

      private

      # Before all its dates, wherever they have moved.
      def beginning = zone.instant(WallTime.parse(start)) - ENDLESS_S

      def sentence_of(all, from, off)
        return Recurrence::Sentence.new(run.with(start: only.at, length_min: only.length_min)).to_s if single?
        return Recurrence::Sentence.new(run, from: from, off: off).to_s unless later

        following = run_of(*later.values_at("start", "rule", "dates", "length_min"))
        earlier = all.select { |one| one.off.nil? && one.original < following.start }.map do |one|
          Recurrence::Sentence::Earlier.new(wall: one.at, length_min: one.length_min)
        end
        Recurrence::Sentence.with_earlier(following, earlier, from: from, off: off)
      end

      # @return [Array<String>]
      def walls_around(from)
        return [] unless run

        dates = run.between(from - ENDLESS_S, from + (run.endless? ? ENDLESS_S : LATEST_S))
        dates.map { |date| date.wall.to_s }
      end

      def run_of(start, rule, dates, length_min)
        Recurrence::Run.new(start: WallTime.parse(start), zone: zone, length_min: length_min,
          rule: rule && Recurrence::Rule.parse(rule), dates: dates.map { |text| WallTime.parse(text) })
      end

      def single(wall, own, off)
        Single.new(original: WallTime.parse(wall), at: WallTime.parse(own ? own["to"] : wall), off: off,
          length_min: own ? own["length_min"] : length_min, special: own&.slice("where", "call")&.compact || {})
      end
    end
  end
end
