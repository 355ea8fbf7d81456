module Views
  # A topic as its sheet shows it.
  class Topic < Base
    # @raise [Core::NotFound]; [Core::Conflict] code "no-meeting" while it stands on no sheet
    def show(id)
      topic = find(Records::Topic, id)
      sheet = Sheet.new(by: by, clock: @clock).show(Loading::Topics.standing(topic))
      sheet[:topics].find { |row| row[:id] == id } || raise(Core::NotFound)
    end
  end
end
