module Loading
  # The papers of a meeting that have arrived whole, in the order they were brought; with those of topics that came to
  # it from an earlier one.
  module Papers
    module_function

    # @param topics [Array<Records::Topic>] that stand on its sheet
    # @return [Array<Hash>] id, name, content_type, size_bytes, topic_id and brought_by
    def of(meeting_id, topics = [])
      here = Records::Paper.where(meeting_id: meeting_id)
      rows(here.or(Records::Paper.where(topic_id: topics.map(&:id))))
    end

    def of_action(action_id) = rows(Records::Paper.where(action_item_id: action_id))

    def rows(papers)
      papers.where(complete: true).includes(:brought_by).order(:created_at, :id).map do |paper|
        {
          id: paper.id, name: paper.name, content_type: paper.content_type, size_bytes: paper.size_bytes,
          topic_id: paper.topic_id, brought_by: {id: paper.brought_by_id, name: paper.brought_by.name}
        }
      end
    end
  end
end
