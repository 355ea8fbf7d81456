module UseCases
  # The keeper hears two days before of a meeting that has nothing on it.
  class EmptyMeetings < Base
    # For the worker. @return [Integer] how many mails were put into the outbox
    def put_due(faults = Faults.new(clock: @clock))
      told = Records::Series.where.not(told_at: nil)
      Loading::EmptyMeetings.of(told.select(:id), now).sum do |meeting|
        faults.attempt("nothing on it", meeting.id) { (write { mail(meeting) }) ? 1 : 0 }.to_i
      end
    end

    private

    def mail(meeting)
      keeper = meeting.series.keeper
      Outbox.new(clock: @clock).put(
        reason: "nothing:#{meeting.id}:#{meeting.starts_at.to_i}", series_id: meeting.series_id, to: keeper,
        about: meeting.starts_at,
        **Mailing::Letters.nothing_on_it(
          title: meeting.series.title, at: Core::Words.moment(meeting.starts_at, keeper.zone),
          url: "#{Settings.origin}/meetings/#{meeting.id}"
        )
      )
    end
  end
end
