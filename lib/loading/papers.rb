module Loading
  # The papers of a meeting that have arrived whole, in the order they were brought.
  module Papers
    module_function

    # @return [Array<Hash>] id, name, content_type, size_bytes and brought_by
    def of(meeting_id)
      papers = Records::Paper.where(meeting_id: meeting_id, complete: true).includes(:brought_by)
      papers.order(:created_at, :id).map do |paper|
        {
          id: paper.id, name: paper.name, content_type: paper.content_type, size_bytes: paper.size_bytes,
          brought_by: {id: paper.brought_by_id, name: paper.brought_by.name}
        }
      end
    end
  end
end
