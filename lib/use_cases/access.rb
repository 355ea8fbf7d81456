module UseCases
  # The one place where rights are checked. What a person may not see does not exist for them.
  class Access
    # kind of thing => how to find the series it belongs to
    SERIES_OF = {
      series: ->(id) { Records::Series.where(id: id).pick(:id) },
      meeting: ->(id) { Records::Meeting.where(id: id).pick(:series_id) },
      topic: ->(id) { Records::Topic.where(id: id).pick(:series_id) },
      line: ->(id) { Records::Line.joins(:meeting).where(id: id).pick("meetings.series_id") },
      action: ->(id) { Records::ActionItem.where(id: id).pick(:series_id) }
    }.freeze

    def initialize(person_id)
      @person_id = person_id
    end

    # @param right [Symbol] of Core::Rights
    # @param kind [Symbol, nil] of SERIES_OF; nil for rights that are about no series
    # @param whose [String, nil] the person an answer is about
    # @raise [Core::Unknown] nobody is signed in; [Core::NotFound] not allowed, or no such thing
    def allow!(right, kind = nil, id = nil, whose: nil)
      return if Core::Rights.allow?(right, [:anyone])
      raise Core::Unknown unless @person_id

      series_id = kind && (SERIES_OF.fetch(kind).call(id) || raise(Core::NotFound))
      right = :see_issued_minutes if right == :see_sheet && issued?(id)
      return if Core::Rights.allow?(right, roles(series_id), own: own?(kind, id, whose))

      raise Core::NotFound
    end

    # @return [Array<Symbol>] roles towards a series, or in general without one
    def roles(series_id = nil)
      person = Records::Person.find_by(id: @person_id) or return []
      roles = [:person]
      roles << :admin if person.admin
      series_id ? roles + roles_in(Records::Series.find(series_id)) : roles
    end

    private

    def roles_in(series)
      role = Records::SeriesMember.where(series_id: series.id, person_id: @person_id).pick(:role)
      [(:keeper if series.keeper_id == @person_id), (:chair if series.chair_id == @person_id),
        {"required" => :member, "optional" => :member, "informed" => :informed}[role]].compact
    end

    def issued?(meeting_id) = Records::Meeting.where(id: meeting_id, state: "issued").exists?

    def own?(kind, id, whose)
      case kind
      when :topic then Records::Topic.where(id: id).where("brought_by_id = :me or presenter_id = :me", me: @person_id).exists?
      when :action then Records::ActionOwner.where(action_item_id: id, person_id: @person_id).exists?
      else whose == @person_id
      end
    end
  end
end
