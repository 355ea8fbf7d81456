module UseCases
  # The standing agenda of a series. Sheets to come that nobody has worked on follow it; the others are offered what is
  # different.
  class StandingAgenda < Base
    MOST = 50

    # @param topics [Array<Hash>] id, title, purpose, length_min, presenter_id, text and sub, in order
    # @param number [Integer] of the agenda seen
    def set(series_id:, number:, topics:)
      write do
        series = find(Records::Series.lock, series_id)
        checked = topics.each_with_index.map { |topic, i| check(series, topic, i) }
        next if checked == standing(series).map { |topic| {id: topic.id, **topic.content} }
        raise Core::Stale.new(version: series.agenda_number) unless number == series.agenda_number

        replace(series, checked)
        series.update_columns(agenda_number: number + 1)
        lay(series, untouched(series))
      end
      nil
    end

    # A new series begins with the standing agenda of another; presenters who are not in it are left out. Inside a
    # transaction.
    def begin_like(series, like_id)
      members = Records::SeriesMember.where(series_id: series.id).pluck(:person_id)
      topics = Records::StandingTopic.where(series_id: like_id).order(:position, :id).to_a
      topics = topics.reject(&:closed) unless reads_closed?(like_id)
      return if topics.empty?

      topics.each { |topic| begin_topic(series, topic, members) }
      series.update_columns(agenda_number: 1)
      lay(series, untouched(series))
    end

    # Lays the standing agenda out on sheets; what was laid out there before goes. Inside a transaction.
    # @param meetings [Array<Records::Meeting>] to come, of that series
    def lay(series, meetings)
      return if meetings.empty? || series.agenda_number.zero?

      ids = meetings.map(&:id)
      clear(ids)
      topics = standing(series)
      rows = ids.flat_map { |id| topics.map { |topic| row(series, id, topic) } }
      rows.each_slice(500) { |some| Records::Topic.insert_all!(some) }
      Records::Meeting.where(id: ids).update_all(agenda_number: series.agenda_number)
      Records::Change.note_all(ids.first(2), now, :topics)
    end

    # What was laid out on sheets nobody has worked on, as if it had never been. Inside a transaction.
    def clear(meeting_ids)
      untouched = Records::Meeting.where(id: meeting_ids, agenda_touched: false).select(:id)
      Records::Topic.where(meeting_id: untouched).where.not(standing_id: nil).delete_all
    end

    # What is different on a sheet that somebody has worked on: taken over, or left as it is.
    # @param take [Boolean]
    def settle(meeting_id:, take:)
      write do
        meeting = find(Records::Meeting.lock, meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
        series = meeting.series
        next if meeting.agenda_number == series.agenda_number

        take_over(series, meeting) if take
        meeting.update_columns(agenda_number: series.agenda_number)
        Records::Change.note(meeting_id, now, :topics)
        Records::Change.note(meeting_id, now)
      end
      nil
    end

    private

    def readers(series) = @readers ||= Loading::ClosedTopics.readers(series)

    def reads_closed?(series_id) = Loading::ClosedTopics.readers(Records::Series.find(series_id)).include?(by)

    def standing(series) = Records::StandingTopic.where(series_id: series.id).in_order.to_a

    def untouched(series) =
      series.meetings.where(state: "planned", agenda_touched: false).where("starts_at > ?", now).in_order.to_a

    def check(series, topic, i)
      people = @people ||= Records::SeriesMember.where(series_id: series.id).pluck(:person_id)
      if topic[:presenter_id] && !people.include?(topic[:presenter_id])
        raise Core::Invalid.new("Choose somebody of this series.", pointer: "/topics/#{i}/presenterId")
      end
      if topic[:closed] && topic[:presenter_id] && !readers(series).include?(topic[:presenter_id])
        raise Core::Invalid.new("Choose somebody who reads closed topics.", pointer: "/topics/#{i}/presenterId")
      end
      title = Core::Title.read(topic[:title], pointer: "/topics/#{i}/title", missing: "Give the topic a title.")
      {
        id: topic[:id], title: title, purpose: topic[:purpose] || "discussion", length_min: topic[:length_min],
        presenter_id: topic[:presenter_id], text: words(topic[:text]), sub: topic[:sub] || false,
        closed: topic[:closed] || false
      }
    end

    def replace(series, checked)
      Records::StandingTopic.where(series_id: series.id).delete_all
      checked.each_with_index do |topic, i|
        raise key_taken if Records::StandingTopic.exists?(id: topic[:id])

        Records::StandingTopic.create!(series_id: series.id, position: i, **topic)
      end
    end

    def begin_topic(series, topic, members)
      presenter = topic.presenter_id if members.include?(topic.presenter_id)
      Records::StandingTopic.create!(
        id: Records::Key.make(now), series_id: series.id, position: topic.position,
        **topic.content, presenter_id: presenter
      )
    end

    def row(series, meeting_id, topic)
      {
        id: Records::Key.make(now), series_id: series.id, meeting_id: meeting_id, standing_id: topic.id,
        brought_by_id: series.keeper_id, position: topic.position, **topic.content, created_at: now, updated_at: now
      }
    end

    def take_over(series, meeting)
      here = Records::Topic.where(meeting_id: meeting.id).where.not(standing_id: nil).index_by(&:standing_id)
      topics = standing(series)
      here.except(*topics.map(&:id)).each_value do |gone|
        gone.delete unless Records::Line.exists?(topic_id: gone.id) || gone.visits.exists?
      end
      topics.each do |topic|
        known = here[topic.id]
        next Records::Topic.create!(row(series, meeting.id, topic)) unless known

        known.update!(**topic.content, position: topic.position)
      end
    end
  end
end
