# The invented Skerry Buoy Trust: who is there, what they meet for, and what they say. Everything is made up.
module Story
  PASSWORD = "buoys afloat"

  # key => [name, zone]
  PEOPLE = {
    marit: ["Marit Hauge", "Europe/Oslo"],
    ines: ["Ines Torvald", "Europe/Oslo"],
    lars: ["Lars Ekeli", "Europe/Oslo"],
    sunniva: ["Sunniva Dahl", "Europe/Oslo"],
    wen: ["Wen Halloran", "America/Halifax"],
    rory: ["Rory Penhallow", "America/Halifax"],
    isla: ["Isla Corkum", "America/Halifax"],
    tomas: ["Tomás Queirós", "Europe/Lisbon"],
    adaeze: ["Adaeze Boon", "Europe/Lisbon"],
    benedita: ["Benedita Falcão", "Europe/Lisbon"],
    gunnar: ["Gunnar Vik", "Europe/Oslo"],
    petra: ["Petra Lindqvist", "Europe/Oslo"]
  }.freeze

  # What people's hours are, where they differ from the usual, and whose public holidays they keep.
  HOURS = {
    wen: {
      "mo" => [%w[08:00 16:00]], "tu" => [%w[08:00 16:00]], "we" => [%w[08:00 16:00]], "th" => [%w[08:00 16:00]],
      "fr" => [%w[08:00 14:00]]
    },
    lars: {
      "mo" => [%w[07:00 16:15]], "tu" => [%w[07:00 16:15]], "we" => [%w[07:00 16:15]], "th" => [%w[07:00 16:15]],
      "fr" => [%w[07:00 12:00]]
    },
    tomas: {
      "mo" => [%w[09:00 13:00], %w[14:00 18:00]], "tu" => [%w[09:00 13:00], %w[14:00 18:00]],
      "we" => [%w[09:00 13:00], %w[14:00 18:00]], "th" => [%w[09:00 13:00]],
      "fr" => [%w[09:00 13:00], %w[14:00 18:00]]
    }
  }.freeze
  REGIONS = {"Europe/Oslo" => "no", "Europe/Lisbon" => "pt", "America/Halifax" => "ca_ns"}.freeze
  # Of Adaeze no calendar is known.
  WITHOUT_CALENDAR = %i[adaeze].freeze

  GROUPS = {
    "Bergen" => [%i[marit ines lars sunniva gunnar petra], []], "Halifax" => [%i[wen rory isla], []],
    "Lisbon" => [%i[tomas adaeze benedita], []], "Sea crew" => [%i[ines lars rory], []],
    "Everybody ashore and afloat" => [[], %w[Bergen Halifax Lisbon]]
  }.freeze

  OPEN = %w[mo tu we th fr].to_h { |day| [day, [%w[07:00 18:00]]] }.freeze
  # key => name, seats, what stands in it, where, who looks after it, what can be had ready and how long it takes
  PLACES = {
    shed: ["Boat shed", 14, %w[Whiteboard Camera Heater], "Quay 2, Bergen", :lars,
      [["Heater on", 60], ["Coffee and buns", 20], ["Tables in a row", 15]]],
    chart: ["Chart room", 8, ["Screen", "Chart table", "Camera"], "Quay 2, upstairs, Bergen", :marit],
    loft: ["Net loft", 30, %w[Screen Loudspeakers], "Old net house, Bergen", :sunniva]
  }.freeze

  # Actions that were never given a date.
  WITHOUT_DATE = [
    "Find the cause of salinity drift on B-09", "Write to the port about the light on the east pontoon"
  ].freeze

  # What is said under a topic; %s is taken by turns.
  SERIES = {
    mooring: {
      title: "Monday mooring round",
      keeper: :marit,
      chair: :ines,
      zone: "Europe/Oslo",
      at: "09:30",
      length_min: 45,
      rule: "FREQ=WEEKLY;BYDAY=MO",
      wday: 1,
      place: "",
      call: {
        kind: "standing", dial: true
      },
      mark: "buoy",
      options: {
        pass_on: true
      },
      held: :shed,
      before: 15,
      after: 30,
      quorum: 5,
      purpose: "What the week at sea needs: moorings, batteries, boats and weather windows.",
      required: %i[ines marit lars wen rory tomas sunniva adaeze],
      informed: %i[gunnar petra benedita],
      topics: [
        ["Safety round", :marit, 5, "information"], ["Mooring checks of the week", :lars, 10, "discussion"],
        ["Weather windows", :ines, 5, "information"], ["Batteries and lids", :wen, 8, "discussion"],
        ["Boats and crew", :sunniva, 7, "decision", "Three boats, **two crews**. The list closes on Friday."]
      ],
      standing: ["Safety round", "Weather windows"],
      offered: [
        [:wen, "Ice bridle for B-22", 10, "The sling of last winter did not hold. *Two ways* to do it better:\n\n" \
          "- a longer bridle\n- a second swivel"]
      ],
      progress: [
        ["Find the cause of salinity drift on B-09", :wen, "Sensor is back from the tank: it is not the sensor", false],
        ["Trial fit of new battery lids", :lars, "Seals come a week late", true]
      ],
      motion: ["Buy a second tender before the season", :sunniva, :rory, {in_favour: 4, against: 1, abstained: 1}],
      notes: [
        "No incidents.",
        "Ice on the east pontoon until ten; cleats gritted.",
        "B-22 reports every six hours again.",
        "Two windows this week, Tuesday and Thursday before noon.",
        "Winch of the *Terna* runs hot after an hour.",
        "Chain on B-31 is worn to 80 percent.",
        "Spare sinkers are at the quay, six of them.",
        "The swell keeps the small boat in until Wednesday.",
        "B-09 drifts against its neighbours, not against the ship.",
        "Halifax has fog; visits move by a day."
      ],
      decisions: [
        "Two people on the pontoon whenever it is below zero.", "B-14 is visited before B-22.",
        "The old lids stay in use until spring.", "No visits above two metres of swell.",
        "Crew lists close on Fridays."
      ],
      # weeks ago raised, text, owner, weeks it stays open (nil: still)
      actions: [
        [20, "Order spare shackles, 24 mm", :ines, 4],
        [19, "Grease the winch of the Terna", :lars, 1],
        [17, "Re-terminate B-14 cable", :lars, 2],
        [16, "Agree winter watch rota", :adaeze, 5],
        [14, "Ask port for a berth in May", :sunniva, 1],
        [13, "Replace reflector on B-31", :wen, 3],
        [11, "Publish September gap report", :tomas, 1],
        [10, "Order spare shackles, 30 mm", :ines, 3],
        [9, "Get insurance quote for the tender", :rory, nil],
        [8, "Test the new lid seals in the tank", :wen, 3],
        [6, "Send anchor drawings to Lisbon", :lars, 2],
        [5, "Find the cause of salinity drift on B-09", :wen, nil],
        [3, "Trial fit of new battery lids", :lars, nil],
        [2, "Book dry-dock survey", :sunniva, nil],
        [4, "Write to the port about the light on the east pontoon", :marit, nil],
        [2, "Count spare sinkers at the quay", :ines, 1],
        [1, "Update contact card for Halifax", :wen, nil],
        [1, "Get the winter bulletin from the weather office", :marit, nil]
      ],
      off: {
        8 => "Storm warning, everybody at the boats", 15 => "Public holiday in Bergen"
      }
    },
    quality: {
      title: "Data quality review",
      mark: "wave",
      keeper: :tomas,
      chair: :tomas,
      zone: "Europe/Lisbon",
      at: "14:00",
      length_min: 60,
      rule: "FREQ=WEEKLY;INTERVAL=2;BYDAY=TU",
      wday: 2,
      place: "",
      call: {
        url: "https://calls.skerrybuoy.example/quality", dial_in: "+351 210 000 000"
      },
      purpose: "Flags, gaps and drifts of the last fortnight, and what the archive may publish.",
      required: %i[tomas adaeze wen isla],
      optional: %i[lars],
      informed: %i[marit],
      topics: [
        ["New flags", :adaeze, 15, "discussion"], ["Gaps and back-fill", :tomas, 15, "discussion"],
        ["Sensors to recall", :wen, 15, "decision"]
      ],
      notes: [
        "Eleven new flags, nine of them temperature.", "The gap of B-17 is closed from the card.",
        "Drift follows temperature, so it is the cell and not fouling.", "Halifax archive is two days behind."
      ],
      decisions: ["Flag salinity of B-09 until the cell is swapped.", "Publish without B-17 for now."],
      actions: [
        [18, "Write up the flagging rule for spikes", :adaeze, 4], [12, "Back-fill B-17 from the card", :tomas, 2],
        [8, "Compare B-09 with the ship's cast", :isla, nil], [4, "Send the spare cell to Halifax", :tomas, nil],
        [2, "Flag B-09 in the archive", :wen, nil]
      ],
      off: {
        6 => "Half of us at sea"
      }
    },
    planning: {
      title: "Vessel and gear planning",
      mark: "sail",
      keeper: :sunniva,
      chair: :lars,
      zone: "Europe/Oslo",
      at: "11:00",
      length_min: 90,
      rule: "FREQ=MONTHLY;BYDAY=1FR",
      wday: 5,
      place: "",
      held: :chart,
      before: 15,
      after: 30,
      purpose: "Which boat goes where with what, three months ahead.",
      required: %i[sunniva lars ines marit rory],
      optional: %i[wen],
      topics: [
        ["Ship time", :sunniva, 25, "decision"], ["Gear to buy", :ines, 20, "decision"],
        ["Yard and surveys", :lars, 20, "discussion"]
      ],
      notes: [
        "The Terna is free in weeks 14 and 16.", "Two quotes for rope, both above last year.",
        "The yard asks for a date by the end of the month."
      ],
      decisions: ["Charter for one week in May.", "Rope is bought in Lisbon."],
      actions: [
        [20, "Ask the yard for a slot in spring", :lars, 8], [13, "Compare rope offers", :ines, 4],
        [8, "Sign the charter for May", :sunniva, nil], [8, "Ask Lisbon what rope they can bring", :marit, nil],
        [3, "List gear that needs a certificate", :rory, nil]
      ],
      off: {}
    },
    handover: {
      title: "Night watch handover",
      mark: "lamp",
      keeper: :adaeze,
      chair: :gunnar,
      zone: "Europe/Lisbon",
      at: "08:00",
      length_min: 15,
      rule: "FREQ=WEEKLY;BYDAY=MO,WE,FR",
      wday: nil,
      place: "",
      call: {
        url: "https://calls.skerrybuoy.example/night"
      },
      options: {
        answers_asked: false
      },
      purpose: "What the night left for the day.",
      required: %i[adaeze gunnar petra isla],
      optional: %i[marit],
      informed: %i[ines],
      topics: [["The night", :gunnar, 10, "information"]],
      notes: [
        "Quiet night.", "B-05 silent from 02:10 to 03:40, back by itself.", "One alarm, a passing trawler.",
        "Wind gauge of B-40 reads zero."
      ],
      decisions: [],
      actions: [
        [9, "Reset the wind gauge of B-40", :petra, 2],
        [4, "Tell the trawler fleet of the new position of B-40", :isla, nil]
      ],
      off: {}
    },
    trustees: {
      title: "Trustees' quarter meeting",
      mark: "bell",
      keeper: :marit,
      chair: :petra,
      zone: "Europe/Oslo",
      at: "16:00",
      length_min: 120,
      rule: "FREQ=MONTHLY;INTERVAL=3;BYDAY=2TH",
      wday: 4,
      place: "",
      held: :chart,
      before: 30,
      after: 30,
      quorum: 3,
      purpose: "Accounts, risks and the plan of the quarter.",
      required: %i[petra gunnar benedita marit],
      informed: %i[ines sunniva],
      topics: [
        ["Approval of the minutes", :petra, 10, "decision"],
        ["Accounts of the quarter", :benedita, 30, "information"], ["Risks", :gunnar, 30, "discussion"]
      ],
      # For the trustees alone: those who get the papers for information read "Closed topic".
      coming: [["The manager's pay", :petra, 15, "decision", "The letter of October is with the chair."]],
      closed: ["The manager's pay"],
      notes: ["The reserve covers five months.", "Insurance of the tender is still open."],
      decisions: ["The minutes are approved.", "The reserve is not touched."],
      actions: [
        [24, "Ask the bank for a second signature", :benedita, 12],
        [12, "Renew the insurance of the boat shed", :marit, nil]
      ],
      off: {}
    }
  }.freeze

  ANSWERS = %w[accepted accepted accepted accepted tentative].freeze
end
