module Loading
  # What falls into days somebody is away.
  class Absence
    # So many days in one go.
    LONGEST_DAYS = 366

    # @return [Range<Date>]
    # @raise [Core::Invalid]
    def self.days(from_day, until_day)
      from, till = Date.iso8601(from_day), Date.iso8601(until_day)
      raise Core::Invalid.new("The last day is before the first.", pointer: "/untilDay") if till < from
      if till - from >= LONGEST_DAYS
        raise Core::Invalid.new("That is more than a year.", pointer: "/untilDay")
      end

      from..till
    end

    # @param days [Range<Date>] on their own wall
    def initialize(person_id, days, now:)
      @person = Records::Person.find_by(id: person_id) || raise(Core::NotFound)
      zone = @person.zone
      from = [zone.instant(Core::WallTime.at(days.first)), now].max
      till = zone.instant(Core::WallTime.at(days.last + 1))
      @coming = Records::Meeting.where(state: "planned")
        .where("meetings.starts_at < ? and meetings.ends_at > ?", till, from)
    end

    attr_reader :person

    # Those they are asked to and do not keep themselves. @return [Array<Records::Meeting>] with their series, in order
    def asked = of(Records::Series.shown_to(person.id).where.not(keeper_id: person.id))

    # Those they keep.
    def kept = of(Records::Series.where(keeper_id: person.id).wanted)

    private

    def of(series) = Records::Base.fill(@coming.where(series_id: series.select(:id)).in_order, :series).to_a
  end
end
