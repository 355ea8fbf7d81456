module UseCases
  # A row of times of which each on a list picks one by their own link: first come, first served, nobody twice. Whom a
  # change of the row concerns hears of it.
  class RowPicking < Base
    # @param length_min, pause_min [Integer]; breaks [Array<Hash>] from and to on the wall of the series
    # @param people [Array<Hash>] name and email, all on the list
    def plan(meeting_id:, length_min:, pause_min: 0, breaks: [], people: [])
      write do
        meeting = planned(meeting_id)
        meeting.row_plan = {
          "length_min" => length_min, "pause_min" => pause_min, "breaks" => breaks.map { |one| span(meeting, one) }
        }
        Loading::PickLink.plan(meeting).check
        meeting.save!
        set_people(meeting, people)
        let_go(meeting)
        Records::Change.note(meeting_id, now)
      end
    end

    # Mails those who have neither picked nor been asked.
    # @param again [Boolean] also who was asked before
    def ask(meeting_id, again: false)
      write do
        meeting = planned(meeting_id)
        raise Core::Conflict.new("No row of times is planned here.", code: "state") unless meeting.row_plan

        picked = Records::RowSlot.standing.where(meeting_id: meeting_id).select(:person_id)
        waiting = Records::RowPicker.where(meeting_id: meeting_id).where.not(person_id: picked)
        waiting = waiting.where(asked_at: nil) unless again
        waiting.includes(:person).each { |picker| mail(meeting, picker, :pick) }
        Records::Change.note(meeting_id, now)
      end
    end

    # @param link [Loading::PickLink]
    # @raise [Core::Conflict] code "taken", with what is free nearest
    def pick(link, starts_at:)
      write do
        meeting = planned(link.meeting.id)
        link.picker.association(:meeting).target = meeting
        refuse_late(meeting)
        refuse_taken(link, starts_at) unless link.free.include?(starts_at)
        slot = link.own || Records::RowSlot.new(
          id: Records::Key.make(now), meeting_id: meeting.id, person_id: link.picker.person_id
        )
        slot.update!(starts_at: starts_at, length_min: meeting.row_plan["length_min"], off: false)
        Rows.new(by: by, clock: @clock).tell_of(slot)
      end
    end

    private

    def planned(meeting_id)
      meeting = find(Records::Meeting.includes(series: :keeper).lock, meeting_id)
      Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
      meeting
    end

    def refuse_late(meeting)
      return if meeting.state == "planned" && meeting.starts_at > now && meeting.row_plan

      raise Core::Conflict.new("Times can no longer be picked here.", code: "late")
    end

    def refuse_taken(link, starts_at)
      near = link.free.min_by(3) { |at| (at - starts_at).abs }.sort
      raise Core::Conflict.new(
        "This time has just been taken.#{" These are the nearest." if near.any?}", code: "taken", nearest: near
      )
    end

    def span(meeting, one)
      %i[from to].map do |name|
        wall = Core::WallTime.parse(one[name], pointer: "/breaks")
        meeting.series.zone.instant(wall).iso8601
      end.tap do |from, to|
        raise Core::Invalid.new("A break ends after it begins.", pointer: "/breaks") unless from < to
      end
    end

    def set_people(meeting, people)
      ids = people.each_with_index.map { |one, i| person(meeting, one, i) }.uniq
      gone = Records::RowPicker.where(meeting_id: meeting.id).where.not(person_id: ids)
      gone.delete_all
      known = Records::RowPicker.where(meeting_id: meeting.id).pluck(:person_id)
      (ids - known).each do |id|
        Records::RowPicker.create!(
          id: Records::Key.make(now), meeting_id: meeting.id, person_id: id,
          name: Records::Person.where(id: id).pick(:name)
        )
      end
    end

    def person(meeting, one, index)
      Guests.new(by: by, clock: @clock).by_address(
        **one.slice(:name, :email), time_zone: meeting.series.time_zone,
        pointers: {name: "/people/#{index}/name", email: "/people/#{index}/email"}
      ).id
    end

    # Whose time lies outside the row now, in a break or across another, picks anew.
    def let_go(meeting)
      plan = Loading::PickLink.plan(meeting)
      pickers = Records::RowPicker.where(meeting_id: meeting.id).includes(:person).index_by(&:person_id)
      slots = Records::RowSlot.standing.where(meeting_id: meeting.id, person_id: pickers.keys).to_a
      slots.reject { |slot| slot.length_min == plan.length_min && plan.starts.include?(slot.starts_at) }.each do |slot|
        slot.association(:meeting).target = meeting
        entry = Loading::RowInvitation.new(slot, call: nil, now: now).to_ical(:cancel) if slot.told_digest
        mail(meeting, pickers.fetch(slot.person_id), :again, entry)
        slot.destroy!
      end
    end

    # @param kind [Symbol] pick, or again where their time is gone
    # @param entry [String, nil] what takes the time before out of their calendar
    def mail(meeting, picker, kind, entry = nil)
      Outbox.new(clock: @clock).put(
        reason: "pick:#{kind}:#{picker.id}:#{(now.to_f * 1_000).to_i}", series_id: meeting.series_id, to: picker.person,
        reply_to: meeting.series.keeper.email, calendar: entry,
        **Mailing::BookingLetters.pick(
          title: meeting.series.title, keeper: meeting.series.keeper.name, again: kind == :again,
          at: Core::Words.day(picker.person.zone.wall(meeting.starts_at).date),
          length_min: meeting.row_plan["length_min"],
          url: "#{Settings.origin}#{Loading::PickLink.path(meeting.id, picker.person_id)}"
        )
      )
      picker.update!(asked_at: now)
    end
  end
end
