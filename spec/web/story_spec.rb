require_relative "../web_helper"

# The whole job once, thinly: from a rule to an action that reaches the next meeting.
RSpec.describe "A keeper's week" do
  monday = Clock.today + (1 - Clock.today.wday) % 7 + 7

  before do
    person("Marit Hauge", admin: true)
    person("Ines Torvald")
    person("Wen Halloran", zone: "America/Halifax")
  end

  # Types a line, waits until it is read, and keeps it.
  def type_line(text, read_as: nil)
    type(text)
    expect(page).to have_css(".reading", text: read_as || "save")
    type(:enter)
    expect(page).to have_css(".entry textarea", exact_text: "")
  end

  it "goes from making a series to what the next meeting begins with" do
    sign_in_as("Marit Hauge")
    expect(page).to have_content "First steps"
    expect_accessible

    # 2 a series, its rule read back
    click_link "The first series"
    click_button "Make the series"
    expect(page).to have_content "Give the series a title."
    fill_in "First date", with: ""
    expect(page).to have_content "Give the first date."
    fill_in "Title", with: "Monday mooring round"
    fill_in "Why it meets", with: "What the week at sea needs"
    fill_in "First date", with: Date.new(2020, 1, 6)
    expect(page).to have_content "That is past"
    fill_in "First date", with: monday
    fill_in "Starts at", with: "09:30"
    expect(page).to have_css "button[aria-pressed=true]", text: "Mo", count: 1
    choose_from "End", "Ends after"
    fill_in "Number", with: "6"
    expect(page).to have_css(
      ".sentence",
      text: "Every Monday, 09:30–10:15 Oslo time, 6 meetings, the last on #{(monday + 35).strftime("%A %-d %B %Y")}."
    )
    expect(page).to have_css(".dates li", count: 6)
    fill_in "Where else, or how to find it", with: "Boat shed table"
    ["Ines Torvald", "Wen Halloran"].each { |name| choose_from "Add a person or group", name }
    expect_accessible
    click_button "Make the series"

    # 3 its page
    expect(page).to have_css "h1", text: "Monday mooring round"
    expect(page).to have_content "Nobody has been told of this series yet."
    click_button "Edit the series"
    within(".v-dialog") { fill_in "Title", with: "Monday mooring" }
    expect_accessible within: ".v-dialog"
    within(".v-dialog") { click_button "Save" }
    expect(page).to have_css "h1", text: "Monday mooring", exact_text: true
    expect_accessible

    # 4 a sheet planned: topics brought, timed and put in order, by keyboard alone
    page.driver.browser.keyboard.type("o")
    expect(page).to have_css "article h1"
    expect(page).to have_css ".add input:focus"
    [["Safety round", 5], ["Boats and crew", 15], ["Weather windows", 10]].each do |title, minutes|
      type(title)
      type(:tab)
      page.driver.browser.keyboard.type([:Control, "a"])
      type(minutes.to_s)
      type(:enter)
      expect(page).to have_css "article h2", text: title
    end
    find_button("Move Weather windows: arrow up or down").send_keys(:up)
    expect(page).to have_css(".topic:nth-of-type(2) h2", text: "Weather windows")
    expect(all(".order li .time").map(&:text)).to eq %w[09:30 09:35 09:45]
    expect(page).to have_content "15 min to spare"
    expect_accessible
    first_sheet = page.current_path

    # 5 the invitation, seen before it goes, and as it arrives
    click_link "The series"
    click_button "Send the invitation"
    within(".v-dialog") do
      expect(page).to have_content "Wen Halloran"
      fill_in "A note for this mail (optional)", with: "New this winter"
      expect(page).to have_css "iframe[title='The mail']"
      click_button "Show it as text"
      expect(page).to have_css "pre", text: "New this winter"
    end
    expect_accessible within: ".v-dialog"
    within(".v-dialog") do
      click_button "Send to 2 people"
      expect(page).to have_content "Sent to 2 people."
      click_button "Done"
    end
    expect(page).to have_no_content "Nobody has been told"
    tray = JSON.parse(Net::HTTP.get(URI("#{PostOffice.address}/mails.json")))
    expect(tray["mails"].map { |mail| [mail["to"], mail["subject"]] }).to include [
      "wen@skerrybuoy.example", "Invitation: Monday mooring"
    ]

    # 6 the meeting held: who is here, lines read as they are typed
    visit first_sheet
    click_button "Start the meeting"
    click_button "Hold it now" # another day than planned
    click_button "All others are here"
    expect(page).to have_content(/Here · 3 of 3/i)
    select "on the call", from: "Wen Halloran is"
    find(".entry textarea").click
    type_line "No incidents."
    type_line "Ines to order shackles by Friday", read_as: "Action for Ines Torvald, due"
    type_line "Wen to flag B-09", read_as: "Action for Wen Halloran"
    type_line "Decided: two people on the pontoon", read_as: "Decision: Two people on the pontoon"
    expect(page).to have_css ".line.action", text: /Order shackles\s+Ines Torvald\s+due Fri/
    expect(page).to have_css ".line.decision", text: "Two people on the pontoon"
    click_button "Put off: Boats and crew"
    expect(page).to have_content "put off to the next meeting"
    click_button "Discuss now: Weather windows"
    expect(page).to have_css ".topic.here h2", text: "Weather windows"
    expect(page).to have_content(/carries 2 actions and 1 topic to/)
    expect_accessible

    # 7 closed; the next sheet begins with what is left over
    click_button "Close the meeting"
    expect(page).to have_content(/minutes · draft/i)
    click_link "next: #{(monday + 7).strftime("%-d %b").sub("Sep", "Sept")}"
    expect(page).to have_css ".left li", count: 2
    expect(page).to have_css ".left li", text: /Order shackles\s*new/
    expect(page).to have_css ".topic h2", text: "Boats and crew", count: 1
    expect(page).to have_content "came over"
    click_button "Done: Flag B-09" # from the sheet, before the meeting
    expect(page).to have_content "“Flag B-09” is done."
    click_button "Undo"
    expect(page).to have_button "Done: Flag B-09"
    click_button "Start the meeting"
    click_button "Hold it now" # another day than planned
    click_button "Carry over: Order shackles"
    expect(page).to have_content(/carried once/)
    click_button "Split: Flag B-09"
    type("Wen to flag B-09 in the archive")
    type(:enter)
    type("Marit to tell the archive")
    click_button "Split it"
    expect(page).to have_css ".left li", text: "dropped: Split into: Flag B-09 in the archive; Tell the archive"
    within("header.top") { click_button "Undo" }
    expect(page).to have_no_css ".left li", text: "dropped: Split into"
    click_button "Redo"
    expect(page).to have_css ".left li", text: "dropped: Split into"
    click_button "Undo: Flag B-09"
    click_button "Drop: Flag B-09"
    type("Done by the archive itself")
    type(:enter)
    expect(page).to have_css ".left li", text: /Flag B-09\s*dropped: Done by the archive itself/
    click_button "Close the meeting"
    click_link "The series"
    expect(page).to have_css ".scroll", text: "Order shackles, Ines Torvald: open, carried 1 time", visible: :all
    expect(page).to have_css "svg .age", text: "1"

    # 8 ticked off, from the Desk of its owner, and back
    sign_out
    sign_in_as("Ines Torvald")
    check "Done: Order shackles"
    expect(page).to have_content "“Order shackles” is done."
    expect(page).to have_content "Nothing is left over for you."
    click_button "Undo"
    expect(page).to have_unchecked_field "Done: Order shackles"
    click_link "Actions", exact: true
    check "Done: Order shackles"
    choose_from "State", "closed"
    expect(page).to have_checked_field "Open again: Order shackles"
    expect_accessible
  end
end
