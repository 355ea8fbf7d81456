module Loading
  # Which topics somebody does not read since they are closed. Whoever asks about it asks here, and Core::Rights decides
  # (`see_closed`).
  module ClosedTopics
    # Each closed topic with what somebody is in its series. A deputy for one meeting is one for what stands at it.
    WITH_ROLES = <<~SQL.freeze
      select topics.id, series.keeper_id, series.chair_id, series_members.role, exists (
        select 1 from deputies left join meetings at_it on at_it.id = deputies.meeting_id
        where deputies.series_id = series.id and deputies.person_id = :person and (
          deputies.meeting_id is null
          or deputies.meeting_id = coalesce(topics.settled_at_meeting_id, topics.meeting_id)
          or (topics.settled_at_meeting_id is null and at_it.starts_at >= meetings.starts_at)
        )
      )
      from topics
      join series on series.id = topics.series_id
      join meetings on meetings.id = topics.meeting_id
      left join series_members on series_members.series_id = series.id and series_members.person_id = :person
      where topics.closed and %s
    SQL
    NOBODY = "nobody".freeze

    module_function

    # @param person_id [String, nil] nil: somebody nobody knows
    # @return [Array<String>] closed topics of these series that are not for them
    def hidden_from(person_id, series_ids)
      series_ids.empty? ? [] : hidden("topics.series_id in (:series)", person_id, series: series_ids)
    end

    # @return [Boolean] whether this topic is closed to somebody
    def hides?(topic_id, person_id)
      !topic_id.nil? && hidden("topics.id = :topic", person_id, topic: topic_id).any?
    end

    # Who reads closed topics.
    # @param series [Records::Series]
    # @param meeting_id [String, nil] deputies for that one among them
    # @return [Array<String>] people
    def readers(series, meeting_id = nil)
      deputies = Records::Deputy.at(series.id, meeting_id).to_a
      people = [series.keeper_id, series.chair_id, *series.members.map(&:person_id), *deputies.map(&:person_id)]
      people.compact.uniq.select do |id|
        Core::Rights.allow?(:see_closed, Access.new(id).roles_in(series, deputies))
      end
    end

    # What whoever may not read closed topics sees of a series. @return [Core::Sheet::ClosedTopics]
    def of(series_id)
      Core::Sheet::ClosedTopics.new(Records::Topic.where(series_id: series_id, closed: true).ids)
    end

    # What somebody is not shown of a meeting.
    # @return [Core::Sheet::ClosedTopics, nil] nil: they read closed topics
    def from(meeting, person_id) = from_each(meeting).call(person_id)

    # The same for many people, read once. @return [Proc] person_id → Core::Sheet::ClosedTopics, nil
    def from_each(meeting)
      readers = readers(meeting.series, meeting.id)
      closed = nil
      ->(person_id) { readers.include?(person_id) ? nil : closed ||= of(meeting.series_id) }
    end

    # @return [Array<Hash>] papers of a meeting, as far as somebody reads them
    def papers(meeting_id, person_id)
      found = Papers.of(meeting_id)
      return found if found.none? { |paper| paper[:topic_id] }

      closed = from(Records::Meeting.includes(series: :members).find(meeting_id), person_id)
      closed ? closed.papers(found) : found
    end

    def reads?(meeting_id, person_id)
      meeting = Records::Meeting.includes(series: :members).find(meeting_id)
      readers(meeting.series, meeting_id).include?(person_id)
    end

    # Pairs of people and actions, as far as they read them. Asked for each person, where anything is closed at all.
    # @param pairs [Array<Array(Records::Person, Records::ActionItem)>]
    def read_by(pairs)
      closed = Records::Topic.where(id: pairs.filter_map { |_, action| action.topic_id }.uniq, closed: true)
        .pluck(:id, :series_id).to_h
      return pairs if closed.empty?

      hidden = Hash.new { |all, id| all[id] = hidden_from(id, closed.values.uniq) }
      pairs.reject { |person, action| closed.key?(action.topic_id) && hidden[person.id].include?(action.topic_id) }
    end

    def hidden(where, person_id, **values)
      rows = Records::Base.rows(format(WITH_ROLES, where), person: person_id || NOBODY, **values)
      rows.filter_map do |id, keeper_id, chair_id, role, deputy|
        roles = Access.named(person_id, keeper_id, chair_id, role) + ((deputy == 1) ? [:deputy] : [])
        id unless Core::Rights.allow?(:see_closed, roles)
      end
    end
  end
end
