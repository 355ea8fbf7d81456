module Records
  # Somebody who wants to speak at a meeting, in the order in which they said so.
  class Speaker < Base
    belongs_to :person, class_name: "Records::Person"
  end
end
