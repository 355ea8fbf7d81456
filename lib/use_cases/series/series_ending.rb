module UseCases
  # A series ends, pauses, or goes on in another: what becomes of its meetings, and where its open actions and topics
  # go. None of them may vanish.
  class SeriesEnding < Base
    # What can become of open actions: they go to another series, are done, are dropped, or stay open with their owners,
    # who get one last list.
    ACTIONS = %w[hand_over done drop list].freeze
    # Of topics to come.
    TOPICS = %w[hand_over drop].freeze

    # @param actions [Hash] way of ACTIONS, and series_id for hand_over
    # @param topics [Hash] way of TOPICS, and series_id for hand_over
    # @param people_along [Boolean] whether everybody of this series joins the one its actions go to
    # @param from_meeting_id [String, nil] the first that is called off; nil: all to come
    def end_series(series_id:, reason:, actions:, topics:, people_along: false, from_meeting_id: nil)
      reason = words(reason, pointer: "/reason", missing: "Say why, so that people understand.")
      write do
        series = find(Records::Series.lock, series_id)
        join(series, target(series, actions, "/actions")) if people_along
        settle_topics(series, topics, reason)
        settle_actions(series, actions, reason)
        call_off(series, reason, from_meeting_id)
      end
      nil
    end

    # All meetings between two days are called off; open actions stay, and do not grow older by them.
    # @return [Integer] how many
    # @raise [Core::Conflict] code "state" when there is none
    def pause(series_id:, from_day:, until_day:, reason:)
      reason = words(reason, pointer: "/reason", missing: "Say why, so that people understand.")
      write do
        series = find(Records::Series.lock, series_id)
        meetings = between(series, Date.iso8601(from_day), Date.iso8601(until_day))
        raise Core::Conflict.new("No meeting lies between these days.", code: "state") if meetings.empty?

        meetings.each do |meeting|
          Meetings.new(by: by, clock: @clock).change_state(meeting_id: meeting.id, state: "called_off", reason: reason)
        end
        meetings.size
      end
    end

    private

    def between(series, from, till)
      coming = series.meetings.where(state: "planned").where("starts_at > ?", now).in_order
      coming.select { |meeting| series.zone.wall(meeting.starts_at).date.between?(from, till) }
    end

    def call_off(series, reason, from_meeting_id)
      return unless series.meetings.where(state: "planned").where("starts_at > ?", now).exists?

      SeriesRun.new(by: by, clock: @clock).call_off(
        series_id: series.id, reason: reason, from_meeting_id: from_meeting_id
      )
    end

    # The series things go to. @raise [Core::Invalid]
    def target(series, wish, pointer)
      other = Records::Series.find_by(id: wish[:series_id]) if wish[:series_id] && wish[:series_id] != series.id
      if other && Core::Rights.allow?(:see_actions, Loading::Access.new(by).roles(other.id))
        return other
      end

      raise Core::Invalid.new("Choose another series you take part in.", pointer: "#{pointer}/seriesId")
    end

    def settle_actions(series, wish, reason)
      open = Records::ActionItem.where(series_id: series.id, state: "open").to_a
      case wish[:way]
      when "hand_over"
        other = target(series, wish, "/actions") if open.any?
        # What belongs to a closed topic stays here, and its owners have it as a list.
        closed, open = open.partition { |action| closed_topics(series).include?(action.topic_id) }
        open.each { |action| hand_over(action, other) }
        send_list(series, closed)
      when "list" then send_list(series, open)
      else
        state = {"done" => "done", "drop" => "dropped"}.fetch(wish[:way])
        open.each { |action| Actions.new(by: by, clock: @clock).move(id: action.id, state: state, reason: reason) }
      end
    end

    def hand_over(action, other) = HandingOver.new(by: by, clock: @clock).hand_over(
      id: Records::Key.make(now), action_id: action.id, series_id: other.id
    )

    def send_list(series, actions)
      Records::Base.fill(actions, :series, {owners: :person})
      pairs = actions.flat_map { |action| action.owners.map { |owner| [owner.person, action] } }
      Loading::ClosedTopics.read_by(pairs).group_by(&:first).each do |person, pairs|
        rows = Loading::ActionLink.rows(pairs.map(&:last), person)
        Outbox.new(clock: @clock).put(
          reason: "last-list:#{series.id}:#{series.lock_version}:#{person.id}", series_id: series.id, to: person,
          reply_to: series.keeper.email,
          **Mailing::ActionMail.new(origin: Settings.origin, person: person).last_list(title: series.title, rows: rows)
        )
      end
    end

    def closed_topics(series) = @closed_topics ||= Records::Topic.where(series_id: series.id, closed: true).ids

    # What nobody has taken yet, but not what only stands on each sheet anyway.
    def settle_topics(series, wish, reason)
      open = Records::Topic.waiting.where(series_id: series.id)
      return open.find_each { |topic| topic.update!(state: "declined", word: reason) } if wish[:way] == "drop"
      return unless open.exists?

      # A closed topic is for the eyes of this series.
      open.where(closed: true).find_each { |topic| topic.update!(state: "declined", word: reason) }
      open = open.where(closed: false)
      other = target(series, wish, "/topics")
      meeting = other.meetings.where(state: "planned").where("starts_at > ?", now).in_order.first or
        raise Core::Invalid.new("“#{other.title}” has no meeting to come.", pointer: "/topics/seriesId")
      open.find_each { |topic| move_topic(topic, meeting) }
      Records::Change.note(meeting.id, now, :topics)
    end

    def move_topic(topic, meeting)
      member = Records::SeriesMember.exists?(series_id: meeting.series_id, person_id: topic.presenter_id)
      topic.update!(
        series_id: meeting.series_id, meeting_id: meeting.id, presenter_id: (topic.presenter_id if member)
      )
      Records::Paper.where(topic_id: topic.id).find_each do |paper|
        paper.update!(series_id: meeting.series_id, meeting_id: meeting.id)
      end
    end

    def join(series, other)
      there = Records::SeriesMember.where(series_id: other.id).pluck(:person_id)
      series.members.where.not(person_id: there).find_each do |member|
        Records::SeriesMember.create!(series_id: other.id, person_id: member.person_id, role: member.role)
      end
      other.touch
    end
  end
end
