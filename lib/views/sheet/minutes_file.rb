module Views
  # The minutes of a meeting as a file: as they were issued, or as they stand now.
  class MinutesFile < Base
    FORMS = {
      "pdf" => Mailing::MinutesPdf, "md" => Mailing::MinutesMarkdown, "html" => Mailing::MinutesHtml,
      "txt" => Mailing::MinutesText, "ics" => Mailing::MinutesJournal
    }.freeze
    TYPES = {
      "pdf" => "application/pdf", "md" => "text/markdown;charset=utf-8", "html" => "text/html;charset=utf-8",
      "txt" => "text/plain;charset=utf-8", "ics" => "text/calendar;charset=utf-8"
    }.freeze

    class << self
      # @param content [Hash] of Views::Sheet, frozen or not
      # @param version [Records::MinutesVersion, nil] whose content it is
      # @param closed [Core::Sheet::ClosedTopics, nil] what was closed since, for who does not read closed topics
      # @return [Mailing::MinutesDocument]
      def document(content, closed:, version: nil, state: version && "issued")
        plain = shown(plain(content), closed)
        Mailing::MinutesDocument.new(
          plain, state: state, version: version && said(version), approves: approved_at(plain[:id])
        )
      end

      # What a version says otherwise than the one before it.
      # @param closed [Core::Sheet::ClosedTopics, nil] as above
      # @return [Array<Core::Sheet::MinutesDifference::Change>]
      def changes(before, after, closed:)
        said = [before, after].map { |one| Mailing::MinutesDocument.new(shown(plain(one.sheet), closed)).said_in_all }
        Core::Sheet::MinutesDifference.between(*said)
      end

      private

      # What was closed when it was written, and what has been closed since.
      def shown(plain, closed)
        return plain unless closed

        closed.and(plain[:topics].select { |row| row[:closed] }.map { |row| row[:id] }).sheet(plain)
      end

      def plain(content) = JSON.parse(JSON.generate(Loading::Plain.of(content)), symbolize_names: true)

      def said(version)
        at = version.approved_at_meeting_id && Records::Meeting.find(version.approved_at_meeting_id)
        {number: version.number, reason: version.reason, approved_on: at&.held_on}
      end

      # @return [Array<String>] days of the meetings whose minutes were approved there
      def approved_at(meeting_id)
        ids = Records::MinutesVersion.where(approved_at_meeting_id: meeting_id).select(:meeting_id)
        Records::Meeting.where(id: ids).includes(:series).in_order.map { |meeting| Core::Words.day(meeting.held_on) }
      end
    end

    # @param form [String] of FORMS
    # @param number [Integer, nil] of a version; nil: the last, or as they stand now
    # @return [Array(String, String, String)] name, type and bytes
    def file(meeting_id, form, number: nil)
      meeting = find(Records::Meeting.includes(series: :members), meeting_id)
      document = (number || meeting.state == "issued") ? issued(meeting, number) : draft(meeting)
      name = "#{document.name}#{", version #{number}" if number}.#{form}"
      [name, TYPES.fetch(form), FORMS.fetch(form).new(document).source]
    end

    # The minutes as last issued, whatever is being corrected. @raise [Core::NotFound] before there are any
    # @return [Array(String, String)] name and bytes of the PDF
    def issued_pdf(meeting_id)
      document = issued(find(Records::Meeting.includes(series: :members), meeting_id), nil)
      ["#{document.name}.pdf", FORMS.fetch("pdf").new(document).source]
    end

    private

    def issued(meeting, number)
      versions = Records::MinutesVersion.where(meeting_id: meeting.id).order(:number)
      version = (number ? versions.find_by(number: number) : versions.last) or raise Core::NotFound
      MinutesFile.document(version.sheet, version: version, closed: closed(meeting))
    end

    def draft(meeting)
      content = Sheet.new(by: by, clock: @clock).content_of(meeting.id)
      MinutesFile.document(content, state: meeting.state, closed: closed(meeting))
    end

    def closed(meeting) = Loading::ClosedTopics.from(meeting, by)
  end
end
