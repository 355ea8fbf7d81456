module Views
  # Who could come to a meeting that starts now, the free ones first.
  class FreeNow < Base
    # Free for at least so long.
    AHEAD_S = 1_800
    ORDER = %i[free tentative unknown outside busy].freeze

    # @return [Hash] people with their state: free, tentative, unknown, outside (of their hours) or busy
    def list
      people = Records::Person.where(guest: false).where.not(id: by).order(:name, :id).to_a
      states = availability(people).people.to_h { |one| [one.id, state(one)] }
      rows = people.map { |person| row(person, states.fetch(person.id)) }
      {people: rows.sort_by.with_index { |one, i| [ORDER.index(one[:state]), i] }}
    end

    private

    # Whether they are at work is a matter of this minute; whether they are free, of the half hour to come.
    def state(person)
      person.state_from_now(Core::Spans.minute(now), Core::Spans.minute_after(now + AHEAD_S))
    end

    def availability(people)
      Loading::Availability.new(
        people: people.to_h { |person| [person.id, :required] }, from: now, to: now + AHEAD_S, now: now
      )
    end

    def row(person, state)
      {id: person.id, name: person.name, state: state, clock: Core::Words.clock(person.zone.wall(now))}
    end
  end
end
