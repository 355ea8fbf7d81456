module Views
  # Times kept tentatively.
  class Holds < Base
    # @param known [Array<Records::Person>] read already
    def list(known: [])
      holds =
        Records::Hold
          .standing(now)
          .where(kept_by_id: by)
          .where("ends_at > ?", now)
          .where.not(id: Records::PollCandidate.where.not(hold_id: nil).select(:hold_id))
          .order(:starts_at, :id)
      Records::Base.fill(holds, :place, :kept_by, {people: :person}, known: known)
      {holds: holds.map { |hold| row(hold) }}
    end

    def show(id) = row(find(Records::Hold.includes(:place, :kept_by, people: :person), id))

    private

    def row(hold)
      zone = hold.kept_by.zone
      {
        id: hold.id,
        title: hold.title,
        series_id: hold.series_id,
        starts_at: hold.starts_at,
        ends_at: hold.ends_at,
        local_start: zone.wall(hold.starts_at),
        local_end: zone.wall(hold.ends_at),
        before_min: hold.before_min,
        after_min: hold.after_min,
        time_zone: zone.name,
        expires_at: hold.expires_at,
        released: !hold.released_at.nil? || hold.expires_at <= now,
        place: hold.place && {id: hold.place_id, name: hold.place.name},
        people: hold.people.map { |one| {person_id: one.person_id, name: one.person.name, role: one.role} }
      }
    end
  end
end
