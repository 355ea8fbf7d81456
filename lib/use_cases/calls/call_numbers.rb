module UseCases
  # Invitations wait a little for the call service, where a number to dial is wanted or the link is made anew: what it
  # has not answered is not told. When a number comes later, it is told afterwards.
  class CallNumbers < Base
    LONGEST_S = 600

    # When a mail about a series may go.
    def self.due_at(series, now)
      return now unless series.call_dial || series.call_renewal.positive?

      wanted = Records::Call.find_by(series_id: series.id, meeting_id: nil, state: "wanted")
      wanted ? [now, wanted.wanted_at + LONGEST_S].max : now
    end

    # It is there now. Inside a transaction.
    # @param call [Records::Call] the service has just answered of
    def come(call)
      waiting = Records::Mail.where(series_id: call.series_id, state: "waiting").where.not(sending_id: nil)
      waiting.where("due_at > ?", now).update_all(due_at: now)
      return unless call.series.call_dial

      without = Records::Mail.where(series_id: call.series_id, kind: %w[invited changed], state: %w[sent delivered])
      invitations = Invitations.new(clock: @clock)
      without.where(created_at: call.wanted_at..,
        sent_at: (call.wanted_at + LONGEST_S)..).distinct.pluck(:person_id).each do |person_id|
        invitations.send_again(series_id: call.series_id, person_id: person_id, why: "number", reason: call.id)
      end
    end
  end
end
