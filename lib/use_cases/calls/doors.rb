module UseCases
  # Letting people into a call, turning them away, taking them out. The call service does it; what it reports back is
  # kept at once, so that the one who pressed sees it.
  class Doors < Base
    def initialize(service:, **rest)
      super(**rest)
      @service = service
    end

    # @param visit [String] key of who waits or is in, as the service gives it
    # @param verdict [String] let_in, turn_away or take_out
    # @raise [Core::Conflict] code "no-call"; code "call-service" when the service does not answer
    def judge(meeting_id:, visit:, verdict:)
      call = call_of(meeting_id)
      raise Core::NotFound unless Records::CallReport.exists?(call_id: call.id, visit: visit)

      told { @service.judge(call.id, visit, verdict) }
      read(call)
    end

    def let_all_in(meeting_id)
      call = call_of(meeting_id)
      # Those with a time of their own come in one by one.
      row = Records::RowSlot.standing.where(meeting_id: meeting_id).pluck(:person_id)
      waiting = Loading::CallPresence.of(meeting_id).waiting.reject { |one| row.include?(one.person) }
      told { waiting.each { |one| @service.judge(call.id, one.key, "let_in") } }
      read(call)
    end

    private

    def call_of(meeting_id)
      Records::Call.of(find(Records::Meeting.includes(:series), meeting_id)) ||
        raise(Core::Conflict.new("This meeting has no call made here.", code: "no-call"))
    end

    def told
      yield
    rescue CallService::Away, CallService::Refused
      raise Core::Conflict.new("The call service does not answer just now. Try again.", code: "call-service")
    end

    def read(call)
      found = told { @service.reports(call.id, after: call.reports_read) }
      taking = CallReports.new(clock: @clock)
      found.each { |report| taking.take(report) } if found.is_a?(Array)
    end
  end
end
