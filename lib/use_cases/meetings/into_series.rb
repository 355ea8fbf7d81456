module UseCases
  # A meeting that stood alone, such as one started now, becomes one of a series: its sheet, actions and papers go with
  # it, and count there. Nobody is told: it has been held.
  class IntoSeries < Base
    CONTENT = [Records::Topic, Records::ActionItem, Records::Paper].freeze
    BESIDES = [Records::Event, Records::Call, Records::OfferedTime].freeze

    # @raise [Core::Conflict] code "state" while it goes on, or where it is not alone; "taken" where the series met then
    def put(meeting_id:, series_id:)
      write do
        meeting = find(Records::Meeting.includes(:series).lock, meeting_id)
        from = meeting.series.lock!
        next if from.id == series_id # sent again

        into = target(series_id)
        check(meeting, from, into)
        bring_people(meeting, from, into)
        move(meeting, from, into)
        from.update!(merged_into_id: into.id)
        note(meeting, from, into)
      end
    end

    private

    def target(series_id)
      Loading::Access.new(by).allow!(:change_series, :series, series_id)
      into = find(Records::Series.lock, series_id)
      return into unless into.outside_meeting_id

      raise Core::Invalid.new("Somebody else invites to this series.", pointer: "/seriesId")
    rescue Core::NotFound
      raise Core::Invalid.new("This is no series that you run.", pointer: "/seriesId")
    end

    def check(meeting, from, into)
      unless %w[closed issued].include?(meeting.state)
        raise Core::Conflict.new("Close the meeting first.", code: "state")
      end
      if from.rule || from.meetings.count > 1
        raise Core::Conflict.new("This meeting is one of a series already.", code: "state")
      end
      return unless into.meetings.exists?(original_start: wall(meeting, into))

      raise Core::Conflict.new("“#{into.title}” met at that time as well.", code: "taken")
    end

    def wall(meeting, into) = into.zone.wall(meeting.starts_at).to_time

    # Who was asked and is not in the series was asked to this meeting alone.
    def bring_people(meeting, from, into)
      known = into.members.pluck(:person_id) + Records::Substitute.where(meeting_id: meeting.id).pluck(:person_id)
      from.members.includes(:person).map(&:person).reject { |person| known.include?(person.id) }.each do |person|
        made = Records::Substitute.create!(
          id: Records::Key.make(now), meeting_id: meeting.id, person_id: person.id, given_name: person.name
        )
        made.update!(told_digest: Loading::Substitutes.digest(made))
      end
    end

    def move(meeting, from, into)
      (CONTENT + BESIDES).each { |records| records.where(series_id: from.id).update_all(series_id: into.id) }
      where = meeting.own_where ? {} : {own_where: true, place_id: from.place_id, place: from.place, call_kind: "none"}
      meeting.update!(
        series_id: into.id, original_start: wall(meeting, into), added: !into.rule.nil?, **where
      )
      keep_texts(meeting, from, into)
    end

    # What can be looked for lies by series.
    def keep_texts(meeting, from, into)
      Records::SearchText.where(series_id: from.id).delete_all
      actions = Records::ActionItem.where(series_id: into.id, raised_at_meeting_id: meeting.id)
      [
        Records::Topic.where(meeting_id: meeting.id), Records::Line.where(meeting_id: meeting.id), actions,
        Records::ActionChange.where(action_item_id: actions.select(:id)), Records::Paper.where(meeting_id: meeting.id)
      ].each { |records| records.find_each(&:keep_search_text) }
    end

    def note(meeting, from, into)
      Records::Event.note(
        "changed", "“#{from.title}” of #{Core::Words.day(meeting.original_wall.date)} put into this series",
        series_id: into.id, meeting_id: meeting.id, now: now, person_id: by
      )
      Records::Change.note(meeting.id, now)
    end
  end
end
