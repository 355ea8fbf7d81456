module Views
  # The minutes of a meeting as a file: as they were issued, or as they stand now.
  class MinutesFile < Base
    FORMS = {"pdf" => Mailing::MinutesPdf, "md" => Mailing::MinutesMarkdown}.freeze
    TYPES = {"pdf" => "application/pdf", "md" => "text/markdown;charset=utf-8"}.freeze

    # @param content [Hash] of Views::Sheet, frozen or not
    # @return [Mailing::MinutesDocument]
    def self.document(content, state: nil)
      plain = JSON.parse(JSON.generate(Loading::Plain.of(content)), symbolize_names: true)
      Mailing::MinutesDocument.new(plain, state: state)
    end

    # @param form [String] of FORMS
    # @return [Array(String, String, String)] name, type and bytes
    def file(meeting_id, form)
      meeting = find(Records::Meeting.includes(:series), meeting_id)
      frozen = Records::MinutesVersion.where(meeting_id: meeting_id).order(:number).last if meeting.state == "issued"
      content = frozen&.content || Sheet.new(by: by, clock: @clock).content_of(meeting_id)
      document = MinutesFile.document(content, state: meeting.state)
      ["#{document.kind} #{meeting.original_wall.date.iso8601}.#{form}", TYPES.fetch(form),
        FORMS.fetch(form).new(document).source]
    end
  end
end
