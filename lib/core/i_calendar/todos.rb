module Core
  module ICalendar
    # Actions as to-dos (VTODO, RFC 5545 3.6.2), out and in.
    module Todos
      STATUS = {"open" => "NEEDS-ACTION", "done" => "COMPLETED", "dropped" => "CANCELLED", "handed_over" => "CANCELLED"}
        .freeze
      DAY = /\A(\d{4})(\d\d)(\d\d)/

      # `owners` names; `on` [Date] when it was raised; `changed_at` and `closed_at` [Time].
      Todo = Value.of(:id, :text, :series, :owners, :due_on, :state, :closed_at, :changed_at, :url)

      module_function

      # @param todos [Array<Todo>]
      # @return [String] the iCalendar object
      def write(todos)
        Writer.new.component("VCALENDAR") do |writer|
          writer.raw("VERSION", "2.0").raw("PRODID", Invitation::Request::PRODID).raw("METHOD", "PUBLISH")
          todos.each { |todo| writer.component("VTODO") { one(writer, todo) } }
        end.to_s
      end

      # What is to be done in a file of somebody's: text, owners (names or addresses), due_on and whether it is done.
      # @param bytes [String]
      # @return [Array<Hash>]
      # @raise [Invalid] code "unreadable"
      def read(bytes)
        todos = Reader.read(bytes).components.flat_map { |calendar| calendar.inside("VTODO") }
        todos.map do |todo|
          {
            text: todo.text("SUMMARY").to_s.strip, due_on: day(todo["DUE"]), owners: people(todo),
            done: %w[COMPLETED CANCELLED].include?(todo["STATUS"]&.value)
          }
        end
      end

      def one(writer, todo)
        writer.raw("UID", "action-#{todo.id}@left-over").instant("DTSTAMP", todo.changed_at)
        writer.text("SUMMARY", todo.text)
        writer.text("DESCRIPTION", "Owners: #{Words.list(todo.owners)}") if todo.owners.any?
        writer.text("CATEGORIES", todo.series)
        writer.raw("DUE", todo.due_on.strftime("%Y%m%d"), value: "DATE") if todo.due_on
        writer.raw("STATUS", STATUS.fetch(todo.state))
        writer.instant("COMPLETED", todo.closed_at) if todo.state == "done"
        writer.raw("URL", todo.url)
      end

      def people(todo) = todo.all("ATTENDEE").map { |one| one.params["CN"]&.first || one.value.sub(/\Amailto:/i, "") }

      def day(property)
        year, month, day = property&.value&.match(DAY)&.captures&.map(&:to_i)
        Date.new(year, month, day) if year && Date.valid_date?(year, month, day)
      end
    end
  end
end
