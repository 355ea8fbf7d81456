module Records
  # A call made here, as the call service knows it: of a whole run, or of one meeting. Its key is the key there.
  class Call < Base
    belongs_to :series, class_name: "Records::Series", optional: true
    belongs_to :meeting, class_name: "Records::Meeting", optional: true

    scope :set_aside, -> { where(state: "set_aside").order(:updated_at, :id) }
    scope :standing, -> { where.not(state: "ended") }
    scope :due,
      ->(now) do
        where(state: %w[wanted made]).where("due_at <= ?", now).where("leased_until is null or leased_until < ?", now)
      end

    class << self
      # The one a meeting has, if it is made here.
      def of(meeting) = of_all([meeting])[meeting.id]

      # @param meetings [Array<Records::Meeting>] with their series
      # @return [Hash{String => Call}] by meeting
      def of_all(meetings)
        ours = meetings.select(&:call_ours)
        return {} if ours.empty?

        found = standing.where(series_id: ours.map(&:series_id).uniq).to_h { |one|
          [one.meeting_id || one.series_id, one]
        }
        ours.to_h { |one| [one.id, found[(one.call_ours == "fresh") ? one.id : one.series_id]] }.compact
      end

      # Something the service is told of them may be otherwise now. Inside a transaction.
      def look_again(series_id, now) = standing.where(series_id: series_id).update_all(due_at: now)
    end

    # The link everybody can use, with its passcode. @return [Core::Invitation::Call, nil] nil while it is being made
    def plain = url && Core::Invitation::Call.typed(url: url, passcode: passcode, dial_in: dial_in)

    # As people read it. @return [String, nil]
    def dial_in = number && [number, pin].join(Core::Invitation::Call::PIN)
  end
end
