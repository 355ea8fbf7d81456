module Views
  # The calendars of a person or a place, and how far the reading of each is.
  class Calendars < Base
    # @param owner [Hash] person_id or place_id
    def list(**owner)
      calendars =
        Records::Calendar
          .light
          .where(**owner)
          .where.not(kind: "by_mail")
          .order(:created_at, :id)
          .includes(:entries)
          .to_a
      {calendars: calendars.map { |calendar| row(calendar) }}
    end

    def show(id) = row(find(Records::Calendar.light.includes(:entries), id))

    private

    def row(calendar)
      {
        id: calendar.id,
        name: calendar.name,
        kind: calendar.kind,
        address: calendar.address,
        state: calendar.state,
        done: calendar.done,
        total: calendar.total,
        events: calendar.events,
        checked_at: calendar.checked_at,
        succeeded_at: calendar.succeeded_at,
        last_error: calendar.last_error,
        warnings: calendar.warnings || [],
        known_until: calendar.expanded_until,
        entries:
          calendar
            .entries
            .sort_by(&:local_start)
            .map do |entry|
              {
                id: entry.id, title: entry.title, local_start: Core::WallTime.of_fields(entry.local_start),
                local_end: Core::WallTime.of_fields(entry.local_end), tentative: entry.tentative, rule: entry.rule
              }
            end
      }
    end
  end
end
