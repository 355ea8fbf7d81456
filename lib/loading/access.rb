module Loading
  # The one place where rights are checked. What a person may not see does not exist for them.
  class Access
    # kind of thing => how to find the series it belongs to
    SERIES_OF = {
      series: ->(id) { Records::Series.where(id: id, merged_into_id: nil).pick(:id) },
      meeting: ->(id) { Records::Meeting.where(id: id).pick(:series_id) },
      topic: ->(id) { Records::Topic.where(id: id).pick(:series_id) },
      line: ->(id) { Records::Line.joins(:meeting).where(id: id).pick("meetings.series_id") },
      action: ->(id) { Records::ActionItem.where(id: id).pick(:series_id) },
      paper: ->(id) { Records::Paper.where(id: id).pick(:series_id) },
      offered_time: ->(id) { Records::OfferedTime.where(id: id).pick(:series_id) },
      incoming_mail: ->(id) { Records::IncomingMail.where(id: id).pick(:series_id) }
    }.freeze

    # kind of thing => how to find the person it belongs to, itself where it is nobody's; nothing found: no such thing
    PERSON_OF = {
      person: ->(id) { Records::Person.where(id: id).pick(:id) },
      place: ->(id) { Records::Place.where(id: id).pick(:looked_after_by_id, :id)&.compact&.first },
      calendar: ->(id) do
        Records::Calendar
          .left_joins(:place)
          .where(id: id)
          .pick(Arel.sql("coalesce(calendars.person_id, places.looked_after_by_id, places.id)"))
      end,
      group: ->(id) { Records::Group.where(id: id).pick(:id) },
      outside_meeting: ->(id) { Records::OutsideMeeting.where(id: id).pick(:person_id) },
      file_reading: ->(id) { Records::FileReading.where(id: id).pick(:person_id) },
      session: ->(id) { Records::Session.where(id: id, ended_at: nil).pick(:person_id) },
      hold: ->(id) { Records::Hold.where(id: id).pick(:kept_by_id) },
      open_hours: ->(id) { Records::OpenHours.here.where(id: id).pick(:kept_by_id) },
      hosting: ->(id) { Records::OpenHoursHost.where(id: id).pick(:person_id) },
      time_poll: ->(id) { Records::TimePoll.where(id: id).pick(:kept_by_id) }
    }.freeze

    # kind of thing => SQL for the topic it belongs to
    CLOSED_TOPIC_OF = {
      topic: ":id",
      line: "select topic_id from `lines` where id = :id",
      action: "select topic_id from action_items where id = :id",
      paper: "select coalesce(papers.topic_id, action_items.topic_id) from papers " \
        "left join action_items on action_items.id = papers.action_item_id where papers.id = :id"
    }.freeze

    MEMBERS = {"required" => %i[member required], "optional" => %i[member], "informed" => %i[informed]}.freeze

    TOWARDS = <<~SQL.freeze
      select people.admin, series.keeper_id, series.chair_id, series_members.role, exists (
        select 1 from deputies
        where deputies.series_id = series.id and deputies.person_id = people.id
          and (deputies.meeting_id is null or deputies.meeting_id = :meeting)
      )
      from people
      join series on series.id = :series
      left join series_members on series_members.series_id = series.id and series_members.person_id = people.id
      where people.id = :person
    SQL

    # @return [Array<Symbol>] what somebody is in a series
    def self.named(person_id, keeper_id, chair_id, role)
      [*(:keeper if keeper_id == person_id), *(:chair if chair_id == person_id), *MEMBERS[role]]
    end

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
      return if kind.nil? && Core::Rights.allow?(right, [:person]) # whoever is signed in
      return if PERSON_OF.key?(kind) && allow?(right, kind, id)
      return if kind == :incoming_mail && Core::Rights.allow?(right, roles)

      series_id = kind && (SERIES_OF[kind]&.call(id) || raise(Core::NotFound))
      refuse_closed(kind, id)
      right = :see_actions if right == :see_papers && kind == :paper && meeting_of(kind, id).nil?
      roles = roles(series_id, meeting_of(kind, id))
      return if Core::Rights.allow?(right, roles, own: own?(kind, id, whose))
      return if right == :see_sheet && Core::Rights.allow?(:see_issued_minutes, roles) && issued?(id)

      refuse_until_issued if right == :see_sheet && roles.include?(:informed)
      raise Core::NotFound
    end

    # Whether somebody may do something to what belongs to a person.
    def allow?(right, kind, id)
      owner_id = PERSON_OF.fetch(kind).call(id)
      !owner_id.nil? && Core::Rights.allow?(right, roles + ((owner_id == @person_id) ? [:self] : []))
    end

    # @param meeting_id [String, nil] a deputy may be one for that meeting alone
    # @return [Array<Symbol>] roles towards a series, or in general without one
    # @raise [Core::NotFound] no such series
    def roles(series_id = nil, meeting_id = nil)
      return towards(series_id, meeting_id) if series_id

      admin = Records::Person.where(id: @person_id).pick(:admin)
      admin.nil? ? [] : general(admin)
    end

    # From what is read already.
    # @param series [Records::Series] with its members
    # @param deputies [Enumerable<Records::Deputy>] of the series, or of one of its meetings too
    # @return [Array<Symbol>] roles towards that one alone
    def roles_in(series, deputies)
      role = series.members.find { |member| member.person_id == @person_id }&.role
      deputy = deputies.any? { |one| one.person_id == @person_id }
      named(series.keeper_id, series.chair_id, role) + (deputy ? [:deputy] : [])
    end

    private

    # What belongs to a closed topic is there for who reads it alone.
    def refuse_closed(kind, id)
      topic = CLOSED_TOPIC_OF[kind] or return
      raise Core::NotFound if ClosedTopics.hidden("topics.id = (#{topic})", @person_id, id: id).any?
    end

    # For information one gets the minutes and nothing before.
    def refuse_until_issued
      raise Core::NotFound.new(
        "You are told of this meeting for your information: you get its minutes when they are issued.",
        code: "not-issued-yet"
      )
    end

    # Asked at nearly every request, so in one query.
    def towards(series_id, meeting_id)
      admin, keeper_id, chair_id, role, deputy =
        Records::Base.rows(TOWARDS, person: @person_id, series: series_id, meeting: meeting_id).first
      raise Core::NotFound unless keeper_id

      general(admin == 1) + named(keeper_id, chair_id, role) + ((deputy == 1) ? [:deputy] : [])
    end

    def general(admin) = admin ? [:person, :admin] : [:person]

    def meeting_of(kind, id)
      case kind
      when :meeting then id
      when :line then Records::Line.where(id: id).pick(:meeting_id)
      when :paper then Records::Paper.where(id: id).pick(:meeting_id)
      when :topic then Records::Topic.where(id: id).pick(:settled_at_meeting_id, :meeting_id)&.compact&.first
      end
    end

    def named(keeper_id, chair_id, role) = Access.named(@person_id, keeper_id, chair_id, role)

    def issued?(meeting_id) = Records::Meeting.where(id: meeting_id, state: "issued").exists?

    def own?(kind, id, whose)
      case kind
      when :topic
        Records::Topic.where(id: id).where("brought_by_id = :me or presenter_id = :me", me: @person_id).exists?
      when :paper
        of_own_action = {action_item_id: Records::ActionItem.owned_by(@person_id).select(:id)}
        Records::Paper.where(id: id).merge(
          Records::Paper.where(brought_by_id: @person_id).or(Records::Paper.where(of_own_action))
        ).exists?
      when :action
        Records::ActionOwner.where(action_item_id: id, person_id: @person_id).exists?
      else
        whose == @person_id
      end
    end
  end
end
