module Views
  # The agenda of a meeting as a file.
  class Agenda < Base
    # @return [Array(String, String)] name and bytes @raise [Core::Conflict] while nothing is planned
    def pdf(meeting_id)
      agenda = seen(meeting_id) or
        raise Core::Conflict.new("Nothing is planned for this meeting yet.", code: "empty")
      ["#{agenda[:title]}, agenda.pdf", Mailing::AgendaPdf.new(agenda).to_s]
    end

    private

    def seen(meeting_id)
      agenda = Loading::Agenda.of(meeting_id).to_h
      Loading::ClosedTopics.reads?(meeting_id, by) ? agenda : Loading::Agenda.for_others(agenda)
    end
  end
end
