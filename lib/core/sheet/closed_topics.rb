module Core
  module Sheet
    # What others read of topics that are closed: that there is one, in its place, and for how long. Of all that is said
    # under it they read nothing. Who reads it: Core::Rights, `see_closed` (common practice of boards: what is
    # discussed in camera is for who must be there, and for who keeps the minutes).
    class ClosedTopics
      TITLE = "Closed topic".freeze
      SHOWN = {
        title: TITLE, text: nil, presenter: nil, brought_by_id: nil, purpose: "discussion", in_writing: false,
        shared: false, lines: []
      }.freeze
      # What a sheet says of single topics besides.
      OF_TOPICS = %i[left_over papers gaps brought_in].freeze

      # @param ids [Enumerable<String>] topics that are not shown
      def initialize(ids) = @ids = ids.to_set

      # @return [ClosedTopics] these and some more
      def and(ids) = ClosedTopics.new(@ids + ids)

      def any? = @ids.any?

      def hides?(topic_id) = @ids.include?(topic_id)

      # @param content [Hash] a sheet, frozen or not, or a part of one, with symbols as keys
      # @return [Hash] the same for others
      def sheet(content)
        return content unless any?

        content.except(:closed_files).to_h do |name, value|
          case name
          when :standing_changes then [name, nil]
          when :topics then [name, value.map { |row| topic(row) }]
          when :below_quorum then [name, value - hidden_lines(content)]
          when *OF_TOPICS then [name, value.reject { |row| hides?((name == :brought_in) ? row[:id] : row[:topic_id]) }]
          else [name, value]
          end
        end
      end

      # @param row [Hash] with id and title @return [Hash]
      def topic(row) = hides?(row[:id]) ? row.merge(SHOWN.slice(*row.keys)) : row

      # @param agenda [Hash, nil] as a mail says it @return [Hash, nil]
      def agenda(agenda)
        return agenda unless any? && agenda

        left_over = agenda[:left_over].reject { |row| hides?(row[:topic_id]) }
        agenda.merge(topics: agenda[:topics].map { |row| topic(row) }, left_over: left_over)
      end

      # @param papers [Array<Hash>] with topic_id @return [Array<Hash>]
      def papers(papers) = papers.reject { |paper| hides?(paper[:topic_id]) }

      private

      def hidden_lines(content)
        topics = (content[:topics] || []).select { |row| hides?(row[:id]) }
        topics.flat_map { |row| (row[:lines] || []).map { |line| line[:id] } }
      end
    end
  end
end
