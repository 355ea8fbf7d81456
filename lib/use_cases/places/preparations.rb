module UseCases
  # Asking whoever looks after a place to have something ready for a meeting; they answer by a private link, and hear of
  # every later change.
  class Preparations < Base
    # @param items [Array<String>] names of what the place can prepare; none: nothing is wanted any more
    def ask(meeting_id:, place_id:, items:)
      write do
        meeting = find(Records::Meeting.includes(series: :keeper), meeting_id)
        place = find(Records::Place.includes(:looked_after_by), place_id)
        check(meeting, place, items)
        row = Records::Preparation.lock.find_or_initialize_by(meeting_id: meeting_id, place_id: place_id)
        next if row.persisted? ? row.items == items && row.state != "off" : items.empty?

        row.update!(items: items, state: items.empty? ? "off" : "asked", word: nil)
        tell(row)
        Records::Change.note(meeting_id, now)
      end
    end

    # @param link [Loading::Preparation]
    # @param state [String] confirmed or refused
    def answer(link, state:, word: nil)
      write do
        raise Core::Conflict.new("This is not wanted any more.", code: "state") if link.off?

        link.record.update!(state: state, word: words(word))
        said = "#{link.record.place.name}: #{state}#{": #{words(word)}" if words(word)}"
        Records::Event.note(
          "changed", said, series_id: link.series.id, meeting_id: link.meeting.id, now: now,
          person_id: link.record.place.looked_after_by_id
        )
        Records::Change.note(link.meeting.id, now)
      end
    end

    # Whatever has changed since: another time, another title, called off. They are told with the others; here, by the
    # worker, where there is nobody else to tell. @return [Integer] how many were told
    def tell_changes(faults)
      changed(Records::Meeting.where("ends_at > ?", now)).reject { |row| others_wait?(row.meeting.series_id) }
        .count { |row| faults.attempt("preparing", row.id) { write { change(row) } } }
    end

    # Along with everybody else of a series. Inside a transaction.
    def tell_with_others(series_id)
      changed(Records::Meeting.where(series_id: series_id).where("ends_at > ?", now)).each { |row| change(row) }
    end

    private

    def changed(meetings)
      rows = Records::Preparation.where(meeting_id: meetings.select(:id)).where.not(told_digest: nil)
        .includes(meeting: {series: :series_places}, place: :looked_after_by)
      rows.reject { |row| Loading::Preparation.new(row).digest == row.told_digest }
    end

    def others_wait?(series_id)
      (@others_wait ||= {}).fetch(series_id) do
        @others_wait[series_id] = Loading::Recipients.new(series_id, now: now).waiting.any?
      rescue Core::Conflict
        @others_wait[series_id] = false # nobody is in it, or somebody else invites
      end
    end

    def check(meeting, place, items)
      unless meeting.places_to_hold.include?(place.id)
        raise Core::Conflict.new("This meeting does not take #{place.name}.", code: "place")
      end
      unless place.looked_after_by
        raise Core::Invalid.new("Nobody looks after #{place.name}. Say who does first.", pointer: "/items")
      end

      unknown = items - (place.prepares || []).map { |one| one["name"] }
      return if unknown.empty?

      raise Core::Invalid.new("#{place.name} does not offer #{Core::Words.list(unknown)}.", pointer: "/items")
    end

    # What was confirmed was confirmed for another time.
    def change(row)
      row.update!(state: "asked", word: nil) if %w[confirmed refused].include?(row.state)
      tell(row)
    end

    def tell(row)
      person = row.place.looked_after_by or return
      asked = Loading::Preparation.new(row)
      letter = Mailing::Letters.prepare(
        title: asked.series.title, place: row.place.name, items: row.items, off: asked.off?,
        from: Core::Words.moment(asked.span.starts_at, person.zone),
        to: Core::Words.clock(person.zone.wall(asked.span.ends_at)),
        at: Core::Words.moment(row.meeting.starts_at, person.zone), again: !row.told_digest.nil?,
        url: "#{Settings.origin}#{asked.path}"
      )
      Outbox.new(clock: @clock).put(
        reason: "prepare:#{row.id}:#{asked.digest[0, 20]}:#{now.to_i}", series_id: asked.series.id, to: person,
        reply_to: asked.series.keeper.email, **letter
      )
      row.update!(told_digest: asked.digest)
    end
  end
end
