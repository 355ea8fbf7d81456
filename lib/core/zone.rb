require "tzinfo"

module Core
  # An IANA time zone, and the one place that knows clock changes. Rules convert thousands of
  # times per request, so each zone keeps its changes of offset as two plain arrays.
  class Zone
    # Far enough back for any calendar and ahead for any series; before and after, the nearest offset counts.
    FROM = Time.utc(1900)
    TO = Time.utc(2120)

    # A change of a zone's offset. `instant` [Time]; offsets in seconds east of UTC.
    Change = Value.of(:instant, :offset_before_s, :offset_after_s, :abbreviation, :daylight)

    @known = {}

    class << self
      # @param name [String] such as "Europe/Lisbon"
      # @raise [Invalid] when no such zone is known
      def [](name, pointer: "")
        @known[name] ||= of_iana(TZInfo::Timezone.get(name.to_s))
      rescue TZInfo::InvalidTimezoneIdentifier
        raise Invalid.new("There is no time zone “#{name}”. Zones are named like Europe/Lisbon.", pointer: pointer)
      end

      def known?(name)
        self[name] && true
      rescue Invalid
        false
      end

      # @param timezone [TZInfo::Timezone]
      def of_iana(timezone)
        onsets =
          timezone
            .transitions_up_to(TO, FROM)
            .map do |transition|
              offset = transition.offset
              Onset.new(
                instant_s: transition.at.to_i, offset_s: offset.observed_utc_offset,
                abbreviation: offset.abbreviation, daylight: offset.dst?
              )
            end
        new(timezone.identifier, timezone.period_for(FROM).observed_utc_offset, onsets)
      end

      # @return [Array<String>] the names people choose from, those of places, in order
      def names =
        @names ||=
          TZInfo::Timezone
            .all_identifiers
            .select do |name|
              name =~ %r{\A(Africa|America|Antarctica|Asia|Atlantic|Australia|Europe|Indian|Pacific)/|\AUTC\z}
            end
            .sort
            .freeze
    end

    attr_reader :name

    # What an offset is from an instant on. `instant_s` seconds since 1970 UTC, `offset_s` seconds east of UTC.
    Onset = Value.of(:instant_s, :offset_s, :abbreviation, :daylight)

    # @param first_offset_s [Integer] before the first onset
    # @param onsets [Array<Onset>] in order
    def initialize(name, first_offset_s, onsets)
      @name = name.dup.freeze
      @onsets = onsets.freeze
      @instants = onsets.map(&:instant_s).freeze
      @offsets = [first_offset_s, *onsets.map(&:offset_s)].freeze
      # On the wall, an offset begins to count at the later of the two readings of its change:
      # that gives the offset before a gap, and the first of two equal times (RFC 5545 3.3.5).
      @walls = @instants.each_with_index.map { |instant, i| instant + [@offsets[i], @offsets[i + 1]].max }.freeze
    end

    # The city a person would say: "Lisbon" for Europe/Lisbon.
    def city = name.split("/").last.tr("_", " ")

    # @param wall_s [Integer] seconds on the wall, see WallTime
    # @return [Integer] seconds since 1970 UTC. A time skipped by a change keeps the offset from before it;
    #   one that comes twice means its first pass (RFC 5545 3.3.5).
    def instant_s(wall_s)
      wall_s - @offsets[@walls.bsearch_index { |change| change > wall_s } || -1]
    end

    def instant(wall) = Time.at(instant_s(wall.seconds)).utc

    def wall(instant)
      instant_s = instant.to_i
      WallTime.new(instant_s + @offsets[@instants.bsearch_index { |change| change > instant_s } || -1])
    end

    # Whether a clock change skips this wall-clock time.
    def skipped?(wall) = self.wall(instant(wall)) != wall

    # Whether a clock change brings this wall-clock time twice.
    def twice?(wall)
      index = @walls.bsearch_index { |change| change > wall.seconds } or return false
      back = @offsets[index] - @offsets[index + 1]
      back.positive? && wall.seconds >= @walls[index] - back
    end

    # @return [Array<Time>] each pass of a wall-clock time: one, or two where a clock change brings it twice
    def instants(wall)
      first = instant(wall)
      return [first] unless twice?(wall)

      index = @walls.bsearch_index { |change| change > wall.seconds }
      [first, first + (@offsets[index] - @offsets[index + 1])]
    end

    def offset_s(instant) = wall(instant).seconds - instant.to_i

    # @return [Array<Change>] the changes in [from, to), and the one in force at `from` first
    def changes(from, to)
      first = (@instants.bsearch_index { |change| change > from.to_i } || @instants.size) - 1
      last = (@instants.bsearch_index { |change| change >= to.to_i } || @instants.size) - 1
      ([first, 0].max..last).map do |i|
        Change.new(instant: Time.at(@instants[i]).utc, offset_before_s: @offsets[i], offset_after_s: @offsets[i + 1],
          abbreviation: @onsets[i].abbreviation, daylight: @onsets[i].daylight)
      end
    end

    # Stretches of one offset that cover [from_s, to_s), in seconds since 1970 UTC.
    # @return [Array<Array(Integer, Integer, Integer)>] from, to and the offset in seconds
    def steady(from_s, to_s)
      inside = @instants.select { |instant| instant > from_s && instant < to_s }
      [from_s, *inside, to_s].each_cons(2)
        .map { |from, to| [from, to, @offsets[@instants.bsearch_index { |change| change > from } || -1]] }
    end

    def ==(other) = other.is_a?(Zone) && name == other.name

    def inspect = "#<Zone #{name}>"
  end
end
