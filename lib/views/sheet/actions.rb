require "csv"

module Views
  # Actions wherever they are listed.
  class Actions < Base
    PAGE_SIZE = 50
    # So many at most leave as a file.
    MOST = 5_000
    COLUMNS = ["Action", "Series", "Owners", "Due", "State", "Raised", "Carried", "Reason"].freeze

    # @param choice [Hash] as ActionChoice#records takes it
    def list(page: 1, **choice)
      one_page(:actions, choosing.records(**choice), page, PAGE_SIZE) { |shown| rows(shown) }.merge(choices)
    end

    # @return [Hash] one action, as lists show it
    def show(id) = rows([find(Records::ActionItem, id)]).first

    # What became of an action since it was raised, and its files.
    def history(id)
      action = find(Records::ActionItem.includes(:series), id)
      changes = Records::ActionChange.where(action_item_id: id).order(:changed_at, :id).to_a
      names = Records::Person.where(id: changes.map(&:person_id)).pluck(:id, :name).to_h
      {
        papers: Loading::Papers.of_action(id),
        changes: changes.map do |change|
          {
            id: change.id, kind: change.change_kind, word: change.word, by: names[change.person_id],
            meeting_id: change.meeting_id, local_at: action.series.zone.wall(change.changed_at)
          }
        end
      }
    end

    # @return [String] as CSV (RFC 4180)
    def csv(**choice)
      CSV.generate(row_sep: "\r\n") do |csv|
        csv << COLUMNS
        all(choice).each do |row|
          owners = row[:owners].map { |owner| owner[:name] }.join("; ")
          csv << [
            row[:text], row[:series_title], owners, row[:due_on], row[:state].tr("_", " "), row[:raised_on],
            row[:carried], row[:reason]
          ].map { |cell| Cell.safe(cell) }
        end
      end
    end

    # @return [String] as to-dos (VTODO, RFC 5545)
    def todos(**choice)
      records = choosing.records(**choice).limit(MOST).includes(:series, owners: :person).to_a
      Core::ICalendar::Todos.write(records.map { |action| todo(action) })
    end

    private

    def choosing = @choosing ||= ActionChoice.new(by: by, clock: @clock)

    def all(choice) = rows(choosing.records(**choice).limit(MOST).to_a)

    # What a list can be narrowed to. The series first, so that the database begins with their few actions instead of
    # everybody's.
    def choices
      series = choosing.series.order(:title, :id).pluck(:id, :title)
      open = choosing.seen.where(series_id: series.map(&:first), state: "open")
      owners = open.joins(owners: :person).distinct.order("people.name", "people.id").pluck("people.id", "people.name")
      named = ->(rows) { rows.map { |id, name| {id: id, name: name} } }
      {series: named[series], people: named[owners]}
    end

    def todo(action)
      Core::ICalendar::Todos::Todo.new(
        id: action.id, text: action.text, series: action.series.title, due_on: action.due_on, state: action.state,
        owners: action.owners.map { |owner| owner.person.name }.sort, closed_at: action.closed_at,
        changed_at: action.updated_at, url: Settings.origin + ActionRows.path(action)
      )
    end

    def rows(actions)
      series_ids = actions.map(&:series_id).uniq
      ActionRows.of(actions, Loading::Ledgers.ages(series_ids), by: by, now: now)
    end
  end
end
