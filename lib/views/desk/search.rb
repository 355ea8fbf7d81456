module Views
  # What has certain words in it, in all series somebody takes part in: titles, topics, lines, decisions, actions, what
  # was said of them, and names of files. The newest first. People are found by their names.
  class Search < Base
    PAGE_SIZE = 25
    # kind => the records that must still be there
    STANDING = {
      "series" => -> { Records::Series }, "topic" => -> { Records::Topic }, "note" => -> { Records::Line.standing },
      "decision" => -> { Records::Line.standing }, "action" => -> { Records::ActionItem },
      "progress" => -> { Records::ActionChange }, "paper" => -> { Records::Paper }
    }.freeze

    # @param query [String] words, all of which must stand there
    # @param kind [String, nil] of STANDING, or person; any other: all
    def find_by(query:, kind: nil, series_id: nil, page: 1)
      found = (kind == "person") ? {hits: [], page: page, more: false} : texts(query, kind, series_id, page)
      about_people = page == 1 && series_id.nil? && !STANDING.key?(kind)
      found.merge(series: series_names, people: about_people ? Destinations.new(by: by).people(query) : [])
    end

    private

    def texts(query, kind, series_id, page)
      asked = Core::SearchWords.words(query)
      return {hits: [], page: page, more: false} if asked.empty?

      found = seen(Records::SearchText.having(asked, series_id ? [series_id] : taking_part.map(&:first) + informed))
      found = found.where(kind: kind) if STANDING.key?(kind)
      rows = found.order(at: :desc, id: :desc).offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE + 1).to_a
      shown = standing(rows.first(PAGE_SIZE))
      {hits: hits(shown, asked), page: page, more: rows.size > PAGE_SIZE}
    end

    def taking_part = @taking_part ||= ActionChoice.new(by: by).series.pluck(:id, :title, :time_zone)

    def series_names = taking_part.map { |id, title, _| {id: id, name: title} }.sort_by { |one| one[:name] }

    def informed = @informed ||= Records::SeriesMember.where(person_id: by, role: "informed").pluck(:series_id)

    # Nothing of closed topics that are not for the reader.
    def besides_closed(records)
      topics = Loading::ClosedTopics.hidden_from(by, taking_part.map(&:first) + informed)
      return records if topics.empty?

      actions = Records::ActionItem.where(topic_id: topics)
      ids = [
        topics, Records::Line.where(topic_id: topics).ids, actions.ids,
        Records::ActionChange.where(action_item_id: actions.select(:id)).ids,
        Records::Paper.where.not(id: Records::Paper.besides(topics).select(:id)).ids
      ]
      records.where.not(id: ids.flatten)
    end

    # Who only gets papers sees what was issued.
    def seen(records)
      records = besides_closed(records)
      whole = records.where(series_id: taking_part.map(&:first))
      return whole if informed.empty?

      issued = Records::Meeting.where(series_id: informed, state: "issued").select(:id)
      whole.or(records.where(series_id: informed, meeting_id: issued, kind: %w[topic note decision]))
    end

    def standing(rows)
      there = rows.group_by(&:kind).flat_map { |kind, some| STANDING.fetch(kind).call.where(id: some.map(&:id)).ids }
      rows.select { |row| there.include?(row.id) }
    end

    def hits(rows, asked)
      series = Records::Series.where(id: rows.map(&:series_id)).index_by(&:id)
      meetings = Records::Meeting.where(id: rows.filter_map(&:meeting_id)).index_by(&:id)
      lines = Records::ActionItem.where(id: rows.map(&:id)).pluck(:id, :line_id).to_h
      decided = decided(rows)
      rows.map do |row|
        of, meeting = series.fetch(row.series_id), meetings[row.meeting_id]
        {
          kind: row.kind, id: row.id, **Core::SearchWords.found(row.text, asked), series: {id: of.id, name: of.title},
          meeting_id: meeting&.id, on: meeting ? meeting.held_on(of.zone) : of.zone.wall(row.at).date,
          line_id: %w[note decision].include?(row.kind) ? row.id : lines[row.id], **decided.fetch(row.id, {})
        }
      end
    end

    # How it was decided, where that is to be said. @return [Hash{String => Hash}] by line
    def decided(rows)
      ids = rows.select { |row| row.kind == "decision" }.map(&:id)
      return {} if ids.empty?

      motions = Records::Motion.where(line_id: ids).index_by(&:line_id)
      Records::Line.where(id: ids).pluck(:id, :below_quorum)
        .to_h { |id, below| [id, {below_quorum: below, outcome: motions[id]&.outcome&.to_s}] }
    end
  end
end
