module Views
  # A topic as its sheet shows it.
  class Topic < Base
    # @raise [Core::NotFound]; [Core::Conflict] code "no-meeting" while it stands on no sheet
    def show(id)
      topic = find(Records::Topic, id)
      sheet = Sheet.new(by: by, clock: @clock).show(Loading::Topics.standing(topic))
      sheet[:topics].find { |row| row[:id] == id } || brought_in(sheet, id)
    end

    private

    # Not on the agenda yet: it has no place in the running order.
    def brought_in(sheet, id)
      row = sheet[:brought_in].find { |one| one[:id] == id } || raise(Core::NotFound)
      start = sheet[:local_start]
      nowhere = {presenter: nil, carried: false, put_off: false, present: false, taken: false, lines: []}
      slot = {local_start: start, local_end: start, used_min: nil, over_min: 0, fits: true}
      {**row.except(:brought_by), brought_by_id: row.dig(:brought_by, :id), **nowhere, **slot}
    end
  end
end
