module Loading
  # Reads lines typed at one meeting: it needs names, the day, and when the next meeting is, and nothing else of the
  # sheet.
  class LineReading
    # @param meeting [Records::Meeting]
    def initialize(meeting)
      @meeting = meeting
      @series = Records::Series.includes(members: :person).find(meeting.series_id)
    end

    # @return [Hash] kind, text, due_on, owners and doubtful, people with their names
    def read(text)
      reading = reader.read(text)
      {
        kind: reading.kind.to_s, text: reading.text, due_on: reading.due_on, owners: named(reading.owner_ids),
        doubtful: reading.doubtful.map { |name, ids| {name: name, people: named(ids)} }
      }
    end

    private

    def reader
      @reader ||= Core::Sheet::LineReader.new(
        people: people, today: day(@meeting.begun_at || @meeting.starts_at), next_meeting_on: next_day
      )
    end

    def people = @people ||= @series.members.map { |member| member.person.to_reader }

    def names = @names ||= people.to_h { |person| [person.id, person.name] }

    def named(ids) = ids.map { |id| {id: id, name: names[id]} }

    def day(time) = @series.zone.wall(time).date

    def next_day
      from = [@meeting.starts_at, @meeting.begun_at].compact.min
      following = Records::Meeting.where(series_id: @series.id).where.not(state: "called_off")
        .where("starts_at > ?", from).where.not(id: @meeting.id).minimum(:starts_at)
      following && day(following)
    end
  end
end
