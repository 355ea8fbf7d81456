module Views
  # How the calls of a series that are made here stand, for who runs it.
  class SeriesCall < Base
    def initialize(series, now:, **rest)
      super(**rest)
      @series, @at = series, now
    end

    # @param change [Boolean] whether the reader runs the series
    # @return [Hash, nil]
    def show(change:)
      return unless change

      kind, why = Core::Calls::Terms.propose(guests: @series.members.any? { |member| member.person.guest })
      {
        available: !Settings.calls.nil?, proposed: kind.to_s, why: why, renewal: @series.call_renewal,
        making_since: (call.wanted_at if call&.state == "wanted"), plain: call&.plain&.to_h, usable_until: usable_until
      }
    end

    private

    def call
      return @call if defined?(@call)

      standing = Records::Call.standing.where(series_id: @series.id)
      @call = (@series.call_kind == "standing") ? standing.find_by(meeting_id: nil) : next_fresh(standing)
    end

    def next_fresh(calls)
      coming = Records::Meeting.where(series_id: @series.id).coming(@at).in_order
      calls.where(meeting_id: coming.select(:id)).joins(:meeting).order("meetings.starts_at").first
    end

    def usable_until
      return unless call

      kind = call.meeting_id ? :fresh : :standing
      Core::Calls::Terms.usable_until(kind, ends_at: call.meeting&.ends_at, used_at: call.used_at || call.created_at)
    end
  end
end
