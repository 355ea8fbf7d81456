module UseCases
  # Guests are asked once, in time, to try the entrance of a call made here (common practice: test with outsiders once
  # before).
  class TryingCalls < Base
    # How long before the meeting they are asked, at most and at least.
    AHEAD_S = 2 * 86_400
    LATEST_S = 2 * 3_600

    # @return [Integer] how many were asked
    def put_due(faults)
      meetings.sum { |meeting| faults.attempt("trying_calls", meeting.id) { write { ask(meeting) } }.to_i }
    end

    private

    def meetings
      near = Records::Meeting.where(state: "planned", starts_at: (now + LATEST_S)..(now + AHEAD_S)).in_order
      near.includes(series: :keeper).select { |one| one.series.told_at && one.call_ours && Records::Call.of(one)&.url }
    end

    def ask(meeting)
      tried = Records::CallReport.where(call_id: Records::Call.where(series_id: meeting.series_id).select(:id))
        .where(kind: %w[tried came]).pluck(:person_id)
      guests(meeting).reject { |person| tried.include?(person.id) }.count { |person| mail(meeting, person) }
    end

    # Those who have been told.
    def guests(meeting)
      told = Records::Telling.where(series_id: meeting.series_id, kind: "request").select(:person_id)
      substitutes = Records::Substitute.where(meeting_id: meeting.id).where.not(told_digest: nil).select(:person_id)
      slots = Records::RowSlot.standing.where(meeting_id: meeting.id).where.not(told_digest: nil).select(:person_id)
      guests = Records::Person.where(guest: true)
      guests.where(id: told).or(guests.where(id: substitutes)).or(guests.where(id: slots)).order(:id)
    end

    def mail(meeting, person)
      letter = Mailing::Letters.try_entrance(
        title: meeting.series.title, at: Core::Words.moment(meeting.starts_at, person.zone),
        url: CallLinks.new(clock: @clock).address(meeting.series, person.id, meeting_id: meeting.id)
      )
      Outbox.new(clock: @clock).put(
        reason: "try:#{meeting.series_id}:#{person.id}", series_id: meeting.series_id, to: person,
        reply_to: meeting.series.keeper.email, **letter
      )
    end
  end
end
