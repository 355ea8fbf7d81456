module Records
  # A meeting organised elsewhere to which somebody here is asked; `messages` those that made it, as JSON; `dates` what
  # they make within the horizon.
  class OutsideMeeting < Base
    attribute :messages, :json
    belongs_to :person, class_name: "Records::Person"

    # @return [Array<Core::Invitation::Outside::Date>]
    def dates
      JSON
        .parse(super || "[]")
        .map do |recurrence_s, starts_s, ends_s, answer, kind|
          Core::Invitation::Outside::Date.new(
            recurrence_s: recurrence_s, starts_s: starts_s, ends_s: ends_s, answer: answer.to_sym, kind: kind&.to_sym
          )
        end
    end

    def dates=(rows)
      super(JSON.generate(rows))
    end

    scope :coming, ->(now) { where("last_ends_at is null or last_ends_at > ?", now) }
  end
end
