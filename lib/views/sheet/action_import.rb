module Views
  # Actions in a file of somebody's, a table or to-dos, as they would be taken into a series. Nothing is kept.
  class ActionImport < Base
    MOST = 500
    MOST_BYTES = 2_000_000
    MOST_TEXT = 2_000
    # What the columns of a table may be called.
    COLUMNS = {
      text: %w[action task text title summary what], owners: %w[owners owner who assignee person],
      due_on: ["due", "due on", "due date", "by when", "date"], state: %w[state status done]
    }.freeze
    CLOSED = %w[done closed completed dropped cancelled yes x].freeze

    # @param content [String] the file; kind [String] csv or ics
    # @return [Hash] actions: text, owners, unknown (names nobody in the series has), due_on, date_text and doubt (what
    #   stands there, and why it is not sure), double (where the same is already), done, problems
    def read(series_id:, content:, kind:)
      @series = find(Records::Series, series_id)
      @members = Records::SeriesMember.where(series_id: series_id).includes(:person).map(&:person)
      rows = (kind == "ics") ? Core::ICalendar::Todos.read(content) : table(content)
      raise Core::Invalid.new("No actions are in this file.", pointer: "/content") if rows.empty?
      raise Core::Invalid.new("#{MOST} actions at a time are the most.", pointer: "/content") if rows.size > MOST

      @standing = Records::ActionItem.where(series_id: series_id, state: "open").pluck(:text).to_set { |text| same(text) }
      @seen = Set.new
      {actions: rows.map { |row| looked_at(row) }}
    rescue Core::Invalid => error
      raise Core::Invalid.new(error.message, pointer: "/content", code: error.code)
    end

    private

    def table(content)
      Core::Table.read(content, columns: COLUMNS, needed: [:text]).map { |cells| from_table(cells) }
    end

    def from_table(cells)
      found = dates.alone(cells[:due_on].to_s.downcase.strip)
      {
        text: cells[:text].to_s, owners: Core::Table.names(cells[:owners]), due_on: found&.on, odd: found&.odd,
        done: CLOSED.include?(cells[:state].to_s.downcase), date_text: cells[:due_on].to_s
      }
    end

    # As the lines of minutes are read, which is how people write dates.
    def dates = @dates ||= Core::Sheet::DateReader.new(today: @series.zone.wall(now).date)

    def looked_at(row)
      owners, unknown = row[:owners].partition { |name| who(name) }
      {
        text: row[:text][0, MOST_TEXT], owners: owners.map { |name| named(who(name)) }.uniq,
        unknown: unknown.map { |name| name[0, 120] }, due_on: row[:due_on], done: row[:done],
        date_text: row[:date_text].presence&.slice(0, 120), doubt: doubt(row), double: double(row),
        problems: problems(row)
      }
    end

    # Such a row can be put right, or taken without a date.
    def doubt(row)
      text = Core::Words.shorten(row[:date_text].to_s, 40)
      return if text.empty?
      return "“#{text}” is no date we can read." unless row[:due_on]

      row[:odd]
    end

    def double(row)
      return "This stands in the series already." if @standing.include?(same(row[:text]))

      "This stands here twice." unless @seen.add?(same(row[:text]))
    end

    def same(text) = Core::SearchWords.fold(text.strip)

    def problems(row)
      [("No words." if row[:text].empty?), ("Longer than #{MOST_TEXT} letters." if row[:text].size > MOST_TEXT)].compact
    end

    # By address, by whole name, or by a first name nobody else has.
    def who(name)
      wanted = name.downcase
      exact = @members.find { |person| [person.name.downcase, person.email.downcase].include?(wanted) }
      return exact if exact

      first = @members.select { |person| person.name.downcase.split.first == wanted }
      first.first if first.size == 1
    end
  end
end
