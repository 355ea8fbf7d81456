module Records
  # A topic of a series' standing agenda, from which the topics of coming sheets are laid out.
  class StandingTopic < Base
    # What a topic laid out from it has of it.
    CONTENT = %i[title purpose length_min presenter_id text sub closed].freeze

    belongs_to :series, class_name: "Records::Series"

    scope :in_order, -> { order(:position, :id) }

    def content = CONTENT.to_h { |name| [name, self[name]] }
  end
end
