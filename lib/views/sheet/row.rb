module Views
  # The people with times of their own at a meeting, in order, with where each is.
  module Row
    module_function

    # @return [Array<Hash>]
    def of(meeting, zone)
      slots = Records::RowSlot.standing.where(meeting_id: meeting.id).in_order.includes(:person).to_a
      return [] if slots.empty?

      slots.each { |slot| slot.association(:meeting).target = meeting }
      there = Loading::CallPresence.of(meeting.id)
      waiting = there.waiting.to_h { |one| [one.person, one.key] }
      here = there.people.to_h { |one| [one.person, one] }
      slots.map { |slot| row(slot, zone, waiting[slot.person_id], here[slot.person_id]) }
    end

    def row(slot, zone, waits, here)
      {
        id: slot.id, person_id: slot.person_id, name: slot.person.name, email: slot.person.email,
        local_start: zone.wall(slot.starts_at), turn_at: zone.wall(slot.turn_at), length_min: slot.length_min,
        told: slot.told_digest == Loading::Rows.digest(slot), state: state(waits, here),
        visit: waits || here&.visits&.first
      }
    end

    def state(waits, here)
      return "waits" if waits
      return "not_yet" unless here

      here.in? ? "in" : "been"
    end
  end
end
