require "csv"

module Views
  # The register of what series have decided: of meetings that are over, numbered through the year in each series.
  class Decisions < Base
    COLUMNS = ["Number", "Date", "Decision", "Topic", "Motion", "Quorum", "Approved", "Superseded"].freeze
    PAGE_SIZE = 50

    # @return [Hash] decisions of one series, the newest first
    def list(series_id) = {decisions: rows([find(Records::Series, series_id)]).reverse}

    # @return [String] as CSV (RFC 4180), the oldest first
    def csv(series_id) = table(COLUMNS, rows([find(Records::Series, series_id)])) { |row| cells(row) }

    # Of all series somebody takes part in.
    # @param query [String] words, all of which must stand there
    def list_all(query: "", series_id: nil, page: 1)
      found = wanted(query, series_id).reverse
      page_of(:decisions, page, PAGE_SIZE, found.size, found.slice((page - 1) * PAGE_SIZE, PAGE_SIZE) || []).merge(
        series: taking_part.map { |series| {id: series.id, name: series.title} }
      )
    end

    # @return [String] the same as CSV
    def csv_of_all(query: "", series_id: nil)
      table(["Series", *COLUMNS], wanted(query, series_id)) { |row| [row[:series][:name], *cells(row)] }
    end

    private

    def taking_part = @taking_part ||= ActionChoice.new(by: by).series.order(:title, :id).to_a

    def wanted(query, series_id)
      asked = Core::SearchWords.words(query)
      all = rows(series_id ? taking_part.select { |series| series.id == series_id } : taking_part)
      all.select do |row|
        here = Core::SearchWords.words("#{row[:number]} #{row[:text]} #{row[:topic]}")
        asked.all? { |word| here.any? { |one| one.start_with?(word) } }
      end
    end

    def table(columns, rows)
      CSV.generate(row_sep: "\r\n") do |csv|
        csv << columns
        rows.each { |row| csv << yield(row).map { |cell| Cell.safe(cell) } }
      end
    end

    def cells(row)
      [row[:number], row[:decided_on].iso8601, row[:text], row[:topic], row[:motion],
        ("below quorum" if row[:below_quorum]), row[:approved] ? "yes" : "no", row[:superseded_by]&.fetch(:number)]
    end

    # @param series [Array<Records::Series>] @return [Array<Hash>] the oldest first
    def rows(series)
      @hidden = Loading::ClosedTopics.hidden_from(by, series.map(&:id)).to_set
      meetings = Records::Meeting.where(series_id: series.map(&:id), state: %w[closed issued]).in_order.to_a
      decided = Records::Line.standing.where(meeting_id: meetings.map(&:id), kind: "decision").in_order
        .pluck(:meeting_id, :id, :text, :topic_id, :superseded_by_id, :below_quorum).group_by(&:first)
      motions = motions_of(decided)
      topics = topics_of(decided)
      approved = approved_among(meetings)
      by_id = series.index_by(&:id)
      all = meetings.flat_map do |meeting|
        in_sheet_order(decided.fetch(meeting.id, []), topics).select { |row| decides?(motions[row[1]]) }.map do |row|
          motion = motions[row[1]]
          masked(
            decision(row, meeting, by_id.fetch(meeting.series_id), topics, approved).merge(
              motion: motion && said(motion)
            ), row[3]
          )
        end
      end
      superseded(all.group_by { |row| row[:series][:id] }.values.flat_map { |some| numbered(some) })
        .sort_by.with_index { |row, i| [row[:decided_on], i] }
    end

    # @return [Hash{String => Records::Topic}]
    def topics_of(decided)
      Records::Topic.where(id: decided.values.flatten(1).map { |row| row[3] }.uniq).select(:id, :title, :position)
        .index_by(&:id)
    end

    # Topic by topic as the minutes have them; what was decided on what is left over comes first.
    def in_sheet_order(rows, topics)
      rows.sort_by.with_index do |row, i|
        topic = topics[row[3]]
        topic ? [1, topic.position, topic.id, i] : [0, 0, "", i]
      end
    end

    # @return [Hash{String => Records::Motion}] by line
    def motions_of(decided)
      Records::Motion.where(line_id: decided.values.flatten(1).map { |row| row[1] }).index_by(&:line_id)
    end

    # What was voted on and not carried decides nothing.
    def decides?(motion) = !%i[lost tied].include?(motion&.outcome)

    def decision((_, id, text, topic_id, by_id, below), meeting, series, topics, approved)
      {
        line_id: id, meeting_id: meeting.id, decided_on: meeting.held_on(series.zone), text: text, below_quorum: below,
        topic: topics[topic_id]&.title, approved: approved.include?(meeting.id),
        series: {id: series.id, name: series.title}, superseded_by: by_id
      }
    end

    # What was decided under a closed topic has its number for everybody, and its words for who may read them.
    def masked(row, topic_id)
      return row unless @hidden.include?(topic_id)

      row.merge(text: Core::Sheet::ClosedTopics::TITLE, topic: Core::Sheet::ClosedTopics::TITLE, motion: nil)
    end

    def said(motion) = Core::Sheet::Motion.words(motion.outcome, **motion.counts)

    def numbered(rows)
      numbers = Core::Sheet::DecisionNumbers.of(rows.map { |row| row[:decided_on] })
      rows.zip(numbers).map { |row, number| {number: number, **row} }
    end

    def superseded(rows)
      known = rows.to_h { |row| [row[:line_id], row.slice(:line_id, :number, :meeting_id)] }
      rows.map { |row| row.merge(superseded_by: known[row[:superseded_by]]) }
    end

    # That of the last version counts.
    def approved_among(meetings)
      versions = Records::MinutesVersion.where(meeting_id: meetings.map(&:id)).order(:number)
      versions.pluck(:meeting_id, :approved_at).to_h.compact.keys
    end
  end
end
