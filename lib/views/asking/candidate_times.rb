module Views
  # Times before they are put to people: read from text, and with what is known of everybody.
  class CandidateTimes < Base
    # @param text [String] as it was pasted
    # @return [Hash] times, and what could not be read
    def read(text:, time_zone:)
      zone = Core::Zone[time_zone, pointer: "/timeZone"]
      month_first = Core::CivilDay.month_first?(Records::Person.find_by(id: by)&.region)
      found, unread = Core::Asking::DateList.read(text, today: zone.wall(now).date, month_first: month_first)
      {times: found.map { |one| time(one, zone) }, unread: unread}
    end

    # @param starts [Array<Time>]
    # @return [Hash] times, each with the people whose calendars are known or not
    def check(starts:, length_min:, time_zone:, people: [], groups: [], except_meeting_id: nil)
      zone = Core::Zone[time_zone, pointer: "/timeZone"]
      roles = Loading::Who.everybody(people, groups)
      calendars = Loading::PollCalendars.new(
        roles, starts, length_min: length_min, now: now, except_meeting: except_meeting_id
      )
      names = Records::Person.where(id: roles.keys).pluck(:id, :name).to_h
      {times: starts.map { |at| state(at, zone, calendars, names) }}
    end

    private

    def time(one, zone)
      {starts_at: zone.instant(one.wall), local_start: one.wall, length_min: one.length_min}
    end

    def state(at, zone, calendars, names)
      people = calendars.at(at).map { |id, state| {person_id: id, name: names[id], state: state} }
      {starts_at: at, local_start: zone.wall(at), people: people}
    end
  end
end
