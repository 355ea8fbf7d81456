module Views
  # A line as its sheet shows it; and how one that is still being typed would be kept.
  class Line < Base
    def show(id) = LineRows.row(find(LineRows.load(Records::Line), id))

    # Needs names, the day, and when the next meeting is, but nothing else of the sheet.
    # @param text [String] what is typed
    def read(meeting_id, text)
      meeting = find(Records::Meeting.includes(series: {members: :person}), meeting_id)
      people = meeting.series.members.map { |member| member.person.to_reader }
      reading = Core::Sheet::LineReader.new(
        people: people, today: day(meeting, meeting.begun_at || meeting.starts_at), next_meeting_on: next_day(meeting)
      ).read(text)
      names = people.to_h { |person| [person.id, person.name] }
      {
        kind: reading.kind, text: reading.text, due_on: reading.due_on, owners: people_of(reading.owner_ids, names),
        doubtful: reading.doubtful.map { |name, ids| {name: name, people: people_of(ids, names)} }
      }
    end

    private

    def day(meeting, time) = meeting.series.zone.wall(time).date

    def next_day(meeting)
      from = [meeting.starts_at, meeting.begun_at].compact.min
      following = Records::Meeting.where(series_id: meeting.series_id).where.not(state: "called_off")
        .where("starts_at > ?", from).where.not(id: meeting.id).minimum(:starts_at)
      following && day(meeting, following)
    end

    def people_of(ids, names) = ids.map { |id| {id: id, name: names[id]} }
  end
end
