module Views
  # What is worth a look before a sheet is issued, from what it shows.
  module SheetGaps
    module_function

    # @param content [Hash] of Views::Sheet
    # @return [Array<Hash>] as Core::Sheet::Gaps finds them
    def of(content)
      lines = content[:left_over_lines] + content[:topics].flat_map { |topic| topic[:lines] }
      Core::Sheet::Gaps.of(
        lines: lines.map { |row| line(row, content[:below_quorum]) },
        topics: content[:topics].map { |row| topic(row) }, people: content[:people].map { |row| person(row) },
        quorate: content[:quorate]
      ).map(&:to_h)
    end

    def line(row, below_quorum)
      action = row[:action]
      Core::Sheet::Gaps::Line.new(
        id: row[:id], topic_id: row[:topic_id], kind: row[:kind].to_sym, text: row[:text], asks: !action.nil?,
        owned: action.to_h[:owners].to_a.any?, due: !action.to_h[:due_on].nil?,
        doubts: row[:doubtful].map { |doubt| doubt["question"] }, below_quorum: below_quorum.include?(row[:id])
      )
    end

    def topic(row)
      Core::Sheet::Gaps::Topic.new(
        id: row[:id], title: row[:title], for_decision: row[:purpose] == "decision", taken: row[:taken],
        put_off: row[:put_off]
      )
    end

    def person(row)
      Core::Sheet::Gaps::Person.new(
        name: row[:name], informed: row[:role] == "informed", attendance: row[:attendance]&.to_sym
      )
    end
  end
end
