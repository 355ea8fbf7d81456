module Loading
  # Reads lines typed at one meeting: it needs names, the day, and when the next meeting is, and nothing else of the
  # sheet. Whoever is asked to this meeting alone can be named, too.
  class LineReading
    HOLIDAYS_AHEAD = 400

    # @param meeting [Records::Meeting]
    # @param topic_id [String, nil] under a closed topic work is given to nobody who does not read it
    # @param by [String, nil] who types, and is meant by "I"
    def initialize(meeting, topic_id: nil, by: nil)
      @meeting, @by = meeting, by
      @closed = !topic_id.nil? && Records::Topic.exists?(id: topic_id, closed: true)
      @series = Records::Series.includes(:keeper, members: :person).find(meeting.series_id)
    end

    # @return [Hash] kind, text, due_on, owners and doubtful, people with their names; for a decision that gives
    #   somebody work also action: text, due_on and owners
    def read(text)
      reading = reader.read(text)
      {
        kind: reading.kind.to_s, text: reading.text, due_on: reading.due_on, owners: owners(reading),
        doubtful: doubtful(reading), action: reading.action && work(reading.action)
      }
    end

    private

    def reader
      @reader ||= Core::Sheet::LineReader.new(
        strangers: ->(name) { strangers(name) }, people: people, today: today, next_meeting_on: next_day,
        everyone_ids: everyone_ids, called: called,
        dates: {holidays: holidays, month_first: Core::CivilDay.month_first?(region)}
      )
    end

    def work(action) = {text: action.text, due_on: action.due_on, owners: owners(action)}

    def owners(reading) = named(reading.owner_ids - outside)

    def outside
      @outside ||= @closed ? people.map(&:id) - ClosedTopics.readers(@series, @meeting.id) : []
    end

    def doubtful(reading)
      left_out = (reading.owner_ids + reading.action&.owner_ids.to_a).uniq & outside
      all = reading.doubtful + reading.action&.doubtful.to_a +
        left_out.map { |id| Core::Sheet::Doubt.of(:outside, names[id]) }
      all.map do |doubt|
        parts = (doubt.kind == :several) ? reading.parts : []
        {kind: doubt.kind, said: doubt.said, question: doubt.question, people: doubt.people.map(&:to_h), parts: parts}
      end
    end

    def people
      @people ||= (@series.members.map(&:person) + besides).uniq(&:id).map(&:to_reader)
    end

    def besides = Records::Person.where(id: Records::Substitute.where(meeting_id: @meeting.id).select(:person_id)).to_a

    # Not those who are only informed.
    def everyone_ids = @series.members.reject { |member| member.role == "informed" }.map(&:person_id)

    def called
      told = (@series.called || {}).select { |_, id| names.key?(id) }
      offices = {"chair" => @series.chair_id, "keeper" => @series.keeper_id, "secretary" => @series.keeper_id, **told}
        .flat_map { |word, id| [[word, id], ["the #{word}", id]] }.to_h
      names.key?(@by) ? offices.merge("I" => @by) : offices
    end

    MOST_STRANGERS = 3

    # People of the house who are called so. @return [Array<Core::Sheet::LineReader::Person>]
    def strangers(name)
      here = people.map(&:id)
      like = "#{Records::Person.sanitize_sql_like(name)}%"
      Records::Person.where(guest: false).where("name like ?", like).where.not(id: here).order(:name, :id)
        .limit(MOST_STRANGERS).map(&:to_reader)
    end

    def names = @names ||= people.to_h { |person| [person.id, person.name] }

    def named(ids) = ids.map { |id| {id: id, name: names[id]} }

    def region = @series.keeper.region

    def holidays = Hours.holidays(region, today..today + HOLIDAYS_AHEAD)

    def today = @today ||= day(@meeting.begun_at || @meeting.starts_at)

    def day(time) = @series.zone.wall(time).date

    def next_day
      from = @meeting.begun_at || @meeting.starts_at
      following = Records::Meeting.where(series_id: @series.id).where.not(state: "called_off")
        .where("starts_at > ?", from).where.not(id: @meeting.id).minimum(:starts_at)
      following && day(following)
    end
  end
end
