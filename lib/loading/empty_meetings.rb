module Loading
  # Meetings to come soon that have nothing on them.
  module EmptyMeetings
    module_function

    # What somebody has booked has its subject.
    # @param series_ids [ActiveRecord::Relation, Array<String>] of which they are
    # @param known [Array<Records::Series>] read already
    # @return [Array<Records::Meeting>] with their series, the soonest first
    def of(series_ids, now, known: [])
      coming = Records::Meeting.where(series_id: series_ids, state: "planned")
        .where("starts_at > ? and starts_at <= ?", now, now + Core::Sheet::NothingOnIt::AHEAD_S)
        .where.not(series_id: Records::Booking.where.not(series_id: nil).select(:series_id))
        .in_order
      coming = Records::Base.fill(coming, :series, known: known)
      return [] if coming.empty?

      ids = coming.map(&:series_id).uniq
      ledgers = Ledgers.of(ids)
      brought_in = Records::Topic.where(series_id: ids, state: "brought_in").group(:series_id).count
      written = Records::Topic.where(meeting_id: coming.map(&:id)).where.not(standing_id: nil).where.not(text: nil)
        .pluck(:meeting_id)
      coming.select { |meeting| nothing?(meeting, ledgers[meeting.series_id], brought_in, written) }
    end

    def nothing?(meeting, ledger, brought_in, written)
      by_then = meeting.series.zone.wall(meeting.starts_at).date
      due = ledger.actions.count { |action| action.state == :open && (action.due_on.nil? || action.due_on <= by_then) }
      brought = ledger.topics_at(meeting.id).count { |topic| topic.standing_id.nil? }
      Core::Sheet::NothingOnIt.nothing?(
        topics: brought + brought_in.fetch(meeting.series_id, 0), due: due,
        text: meeting.agenda_touched && written.include?(meeting.id)
      )
    end
  end
end
