module Views
  # Meetings organised elsewhere that somebody here is asked to.
  class OutsideMeetings < Base
    LISTED = 30

    # To come or to be answered, soonest first.
    def list
      person = find(Records::Person, by)
      found = Records::OutsideMeeting.where(person_id: by).coming(now).order(:next_starts_at, :id).limit(LISTED).to_a
      sheets = Records::Series.where(outside_meeting_id: found.map(&:id)).pluck(:outside_meeting_id, :id).to_h
      {meetings: found.filter_map { |row| row_of(row, person, sheets[row.id]) }}
    end

    private

    # From what is kept of it: its messages are not read again at each look.
    def row_of(row, person, series_id)
      zone = person.zone
      coming = row.dates.select { |date| date.ends_s > now.to_i }.first(5)
      return if coming.empty? && !row.called_off

      {
        id: row.id,
        title: row.title,
        organizer: row.organizer_name || row.organizer_email,
        organizer_email: row.organizer_email,
        location: row.location,
        sentence: row.sentence,
        zone_city: zone.city,
        answer: row.answer,
        note: row.note,
        called_off: row.called_off,
        series_id: series_id,
        dates:
          coming.map do |date|
            {
              recurrence_at: Time.at(date.recurrence_s).utc, local_start: zone.wall(Time.at(date.starts_s)),
              local_end: zone.wall(Time.at(date.ends_s)), answer: date.answer.to_s
            }
          end
      }
    end
  end
end
