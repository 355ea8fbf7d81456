module UseCases
  # One after another: people from outside with times of their own within one meeting. They are told when the keeper
  # says so, each of their own time alone; those who wait hear when it gets later.
  class Rows < Base
    # @param slots [Array<Hash>] id (key made by the browser), name, email, local_start and length_min; all there are
    def set(meeting_id:, slots:)
      write do
        meeting = find(Records::Meeting.includes(:series).lock, meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
        wishes = slots.each_with_index.map { |slot, i| wish(meeting, slot, i) }
        Core::Calls::Row.check(wishes.map { |one| Core::Calls::Row::Slot.new(**one.slice(:starts_at, :length_min)) },
          meeting.interval)
        drop(meeting, wishes.map { |one| one[:id] })
        wishes.each { |one| keep(meeting, one) }
        changed(meeting)
      end
    end

    # Tells each who does not know it yet. @return [Integer] how many
    # @param told_only [Boolean] those who were told something before alone
    def tell(meeting_id, told_only: false)
      write do
        meeting = find(Records::Meeting.includes(series: :keeper), meeting_id)
        waiting = Loading::Rows.untold(slots_of(meeting).to_a)
        waiting.select!(&:told_digest) if told_only
        next 0 if waiting.empty?

        waiting.each { |slot| tell_one(slot, slot.off ? :cancel : :request) }
        changed(meeting)
        waiting.size
      end
    end

    # Somebody of the time they have just picked. Inside a transaction.
    def tell_of(slot)
      slot.association(:meeting).target = find(Records::Meeting.includes(series: :keeper), slot.meeting_id)
      tell_one(slot, :request) unless slot.told_digest == Loading::Rows.digest(slot)
      changed(slot.meeting)
    end

    # It runs late, or is in time again; those who were not in yet hear of it at once.
    # @param minutes [Integer] later than planned
    def run_late(meeting_id:, minutes:)
      write do
        meeting = find(Records::Meeting.includes(series: :keeper).lock, meeting_id)
        next if meeting.row_late_min == minutes

        meeting.update!(row_late_min: minutes)
        been = Loading::CallPresence.of(meeting_id).people.map(&:person)
        slots = slots_of(meeting).standing.where.not(told_digest: nil)
        slots.reject { |slot| been.include?(slot.person_id) }.each { |slot| tell_later(slot, meeting) }
        changed(meeting)
      end
    end

    private

    def slots_of(meeting)
      Records::RowSlot.where(meeting_id: meeting.id).in_order.includes(:person, meeting: {series: :keeper})
    end

    def changed(meeting)
      Records::Call.look_again(meeting.series_id, now)
      Records::Change.note(meeting.id, now)
    end

    def wish(meeting, slot, index)
      pointer = "/slots/#{index}"
      guest = Guests.new(by: by, clock: @clock).by_address(
        **slot.slice(:name, :email), time_zone: meeting.series.time_zone,
        pointers: {name: "#{pointer}/name", email: "#{pointer}/email"}
      )
      start = Core::WallTime.parse(slot[:local_start], pointer: "#{pointer}/localStart")
      {
        id: slot[:id], person_id: guest.id, length_min: slot[:length_min],
        starts_at: Core::Calls::Row.start(start, meeting.series.zone, meeting.interval)
      }
    end

    def drop(meeting, ids)
      gone = Records::RowSlot.where(meeting_id: meeting.id).where.not(id: ids)
      gone.where(told_digest: nil).delete_all
      gone.update_all(off: true)
    end

    def keep(meeting, one)
      slot = Records::RowSlot.find_by(id: one[:id])
      raise key_taken if slot && slot.meeting_id != meeting.id

      slot ||= Records::RowSlot.new(id: one[:id], meeting_id: meeting.id)
      slot.update!(off: false, **one.slice(:person_id, :starts_at, :length_min))
    end

    def tell_one(slot, kind)
      series, person = slot.meeting.series, slot.person
      call = CallLinks.new(clock: @clock).call(slot.meeting, slot.person_id)
      Outbox.new(clock: @clock).put(
        reason: "row:#{kind}:#{slot.id}:#{Loading::Rows.digest(slot)[0, 20]}", series_id: series.id, to: person,
        reply_to: series.keeper.email, calendar: Loading::RowInvitation.new(slot, call: call, now: now).to_ical(kind),
        **letter(slot, kind, call)
      )
      slot.off ? slot.destroy! : told(slot)
    end

    def told(slot)
      slot.update!(
        told_digest: Loading::Rows.digest(slot), told_starts_at: slot.starts_at, sequence: slot.sequence + 1
      )
    end

    # When they were told it would be, where it is another time now.
    def was(slot)
      at(slot.told_starts_at, slot) if slot.told_starts_at && slot.told_starts_at != slot.starts_at
    end

    def letter(slot, kind, call)
      series = slot.meeting.series
      Mailing::Letters.own_time(
        kind: kind, title: series.title, keeper: series.keeper.name, at: at(slot.starts_at, slot),
        length_min: slot.length_min, location: slot.meeting.location, call: call, was: was(slot)
      )
    end

    def tell_later(slot, meeting)
      slot.association(:meeting).target = meeting
      Outbox.new(clock: @clock).put(
        reason: "row:late:#{slot.id}:#{meeting.row_late_min}:#{now.to_i}", series_id: meeting.series_id,
        to: slot.person, reply_to: meeting.series.keeper.email,
        **Mailing::Letters.later(
          title: meeting.series.title, at: at(slot.turn_at, slot), late_min: meeting.row_late_min
        )
      )
    end

    def at(moment, slot) = Core::Words.moment(moment, slot.person.zone)
  end
end
