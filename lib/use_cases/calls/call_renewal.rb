module UseCases
  # Another link for the calls of a series, because the old one got into wrong hands or runs out; everybody who was told
  # of the series hears of it.
  class CallRenewal < Base
    # @param id [String] key made by the browser for this press of the button
    # @param renewal [Integer] the one that is replaced
    def renew(id:, series_id:, renewal:, note: nil)
      write do
        Calls.new(by: by, clock: @clock).renew(series_id: series_id, renewal: renewal)
        series = find(Records::Series, series_id)
        next unless series.told_at && series.outside_meeting_id.nil?

        Invitations.new(by: by, clock: @clock).send_all(id: id, series_id: series_id, note: note)
        tell_rows(series)
      end
    end

    RUNS_OUT = "The link of the call was about to run out. Here is the new one."

    # Standing links that would run out before they are used again. Where something else has not been told yet, that
    # stays with the keeper, and only the link is renewed.
    def mend(faults)
      running_out.each do |series|
        faults.attempt("renewing_calls", series.id) { renew_in_time(series) }
      end
    end

    private

    def renew_in_time(series)
      renewing = {series_id: series.id, renewal: series.call_renewal}
      if Loading::Recipients.new(series.id, now: now).waiting.any?
        Calls.new(clock: @clock).renew(**renewing)
      else
        keeper = CallRenewal.new(by: series.keeper_id, clock: @clock)
        keeper.renew(id: Records::Key.make(now), note: RUNS_OUT, **renewing)
      end
    end

    # Those with times of their own, as far as they were told the earlier link.
    def tell_rows(series)
      rows = Rows.new(by: by, clock: @clock)
      series.meetings.coming(now).pluck(:id).each { |meeting_id| rows.tell(meeting_id, told_only: true) }
    end

    def running_out
      old = Records::Call.standing.where(meeting_id: nil, state: "made")
        .where("coalesce(used_at, created_at) < ?", now - Core::Calls::Terms::STANDING_AFTER_S / 2)
      found = old.includes(:series).select do |call|
        coming = Records::Meeting.where(series_id: call.series_id).coming(now).minimum(:starts_at)
        usable = Core::Calls::Terms.usable_until(:standing, used_at: call.used_at || call.created_at)
        Core::Calls::Terms.renew?(usable, coming, now)
      end
      found.filter_map(&:series)
    end
  end
end
