module Records
  # That something on a meeting's sheet changed, and what; what live pages listen to. Those of one sheet are numbered
  # without a gap, in the order in which they were committed: a number is given under a lock that is held until then.
  # Swept after an hour.
  class Change < Base
    self.primary_key = %i[meeting_id number]

    NEXT = <<~SQL.freeze
      insert into sheet_numbers (meeting_id, number) values %s on duplicate key update number = number + 1
    SQL
    KEEP = <<~SQL.freeze
      insert into changes (meeting_id, number, kind, subject_id, changed_at)
      select meeting_id, number, ?, ?, ? from sheet_numbers where meeting_id in (?)
    SQL

    class << self
      # @param kind [Symbol] of Views::SheetPart: what reads differently
      # @param subject_id [String, nil] key of the line
      def note(meeting_id, now, kind = :sheet, subject_id = nil) = note_all([meeting_id], now, kind, subject_id)

      # Inside a transaction.
      def note_all(meeting_ids, now, kind = :sheet, subject_id = nil)
        ids = meeting_ids.compact.uniq.sort # always in the same order, so that two never wait for each other
        return if ids.empty?

        with_connection do |connection|
          connection.execute(sanitize_sql([NEXT % ids.map { "(?, 1)" }.join(", "), *ids]))
          connection.execute(sanitize_sql([KEEP, kind.to_s, subject_id, now, ids]))
        end
      end

      # Sheets of a series that show its open actions and may be on somebody's screen. Inside a transaction.
      def note_left_over(series_id, now)
        open = Meeting.where(series_id: series_id, state: %w[in_session planned]).in_order.limit(2)
        note_all(open.pluck(:id), now, :left_over)
      end

      # The number of the last change of a sheet; 0 before the first.
      def last_number(meeting_id)
        sql = sanitize_sql(["select number from sheet_numbers where meeting_id = ?", meeting_id])
        with_connection { |connection| connection.select_value(sql) } || 0
      end

      # @param seen [Hash{String => Integer}] the last number known, by meeting
      # @return [Array<Array(String, Integer, String, String)>] meeting, number, kind and subject, in order
      def since(seen)
        return [] if seen.empty?

        known = seen.map { |id, number| where(meeting_id: id).where("number > ?", number) }
        known.inject(:or).order(:meeting_id, :number).pluck(:meeting_id, :number, :kind, :subject_id)
      end
    end
  end
end
