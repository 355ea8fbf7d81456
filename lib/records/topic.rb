module Records
  class Topic < Base
    include Searched

    belongs_to :series, class_name: "Records::Series"
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :brought_by, class_name: "Records::Person"
    belongs_to :presenter, class_name: "Records::Person", optional: true
    has_many :visits, class_name: "Records::TopicVisit", dependent: :delete_all

    # Those that stand on a sheet; the others are brought in and wait, or were not taken.
    scope :on, -> { where(state: "on") }
    # Those that somebody has brought, not laid out from the standing agenda.
    scope :brought, -> { where(standing_id: nil) }

    # Those somebody has brought that are neither taken nor refused.
    scope :waiting, -> { brought.where(settled_at_meeting_id: nil, state: %w[on brought_in]) }

    # @return [Integer] the last place among those still to be taken
    def self.last_position(series_id) = where(series_id: series_id, settled_at_meeting_id: nil).maximum(:position) || 0

    def to_core
      Core::CarryForward::Ledger::Topic.new(
        id: id, meeting_id: meeting_id, settled_at_meeting_id: settled_at_meeting_id, position: position,
        standing_id: standing_id
      )
    end

    def search_text
      return if state == "declined"

      {
        kind: "topic", series_id: series_id, meeting_id: settled_at_meeting_id || meeting_id,
        text: [title, text].compact.join("\n")
      }
    end
  end
end
