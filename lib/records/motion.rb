module Records
  # How a decision was put, seconded and voted on.
  class Motion < Base
    belongs_to :line, class_name: "Records::Line"
    belongs_to :proposer, class_name: "Records::Person", optional: true
    belongs_to :seconder, class_name: "Records::Person", optional: true
    attribute :votes, :json, default: -> { {} }

    def counts = {in_favour: in_favour, against: against, abstained: abstained}

    def outcome = Core::Sheet::Motion.outcome(rule: rule.to_sym, present: present, **counts)
  end
end
