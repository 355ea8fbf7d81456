require "mini_mime"

module Loading
  # What goes with a mail about the next meeting of a series: its agenda and papers. Read once, for any number of mails.
  class NextPapers
    AGENDA_NAME = "agenda.pdf"
    # Papers go with the mail up to so much in all, for many mail services take little more; the rest is linked (common
    # practice).
    MOST_ATTACHED_BYTES = 10_000_000

    def initialize(series_id, now:)
      coming = Records::Meeting.where(series_id: series_id).coming(now).in_order
      @meeting = coming.includes(:held_place, series: :held_place).first
    end

    def meeting_id = @meeting&.id

    # @return [Hash, nil] as Agenda gives it
    def agenda = @agenda ||= @meeting && Agenda.new(@meeting).to_h

    # @return [Array<Hash>] id, name, type, size_bytes and whether it is attached: in their order, as long as all
    #   together are not too much
    def papers
      room = MOST_ATTACHED_BYTES
      @papers ||= (@meeting ? Papers.of(@meeting.id) : []).map do |paper|
        attached = paper[:size_bytes] <= room
        room -= paper[:size_bytes] if attached
        type = MiniMime.lookup_by_filename(paper[:name])&.content_type || paper[:content_type]
        {**paper.slice(:id, :name, :size_bytes, :topic_id), type: type, attached: attached}
      end
    end

    def attached = papers.select { |paper| paper[:attached] }

    # @return [Array<String>] names of what goes with the mail
    def names = [*(AGENDA_NAME if agenda), *attached.map { |paper| paper[:name] }]

    class << self
      # @param agenda [Hash, nil]; papers [Array<Hash>] as above
      # @return [Array<Array(String, String, String)>] name, type and bytes of each; papers removed since are left out
      def files(agenda, papers)
        attached = papers.select { |paper| paper[:attached] }
        here = Records::Paper.where(id: attached.map { |paper| paper[:id] }).pluck(:id)
        found = attached.select { |paper| here.include?(paper[:id]) }
          .map { |paper| [paper[:name], paper[:type], bytes_of(paper[:id])] }
        agenda ? [[AGENDA_NAME, "application/pdf", Mailing::AgendaPdf.new(agenda).to_s], *found] : found
      end

      private

      def bytes_of(paper_id) = Records::PaperPiece.where(paper_id: paper_id).order(:number).pluck(:bytes).join
    end
  end
end
